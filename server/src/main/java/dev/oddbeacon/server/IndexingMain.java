package dev.oddbeacon.server;

import org.springframework.boot.autoconfigure.EnableAutoConfiguration;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.context.annotation.ComponentScan;
import org.springframework.context.annotation.FilterType;
import org.springframework.context.annotation.Import;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.ControllerAdvice;

/**
 * A process that indexes and serves nobody: the rooms that this needs, without what answers requests in them. No
 * configuration by its annotations, or the one that serves would take it for one of its own.
 */
@EnableAutoConfiguration
@ConfigurationPropertiesScan
@Import(SystemClock.class)
@ComponentScan(
        basePackages = {
            "dev.oddbeacon.server.catalogue",
            "dev.oddbeacon.server.credentials",
            "dev.oddbeacon.server.events",
            "dev.oddbeacon.server.index",
            "dev.oddbeacon.server.objects",
            "dev.oddbeacon.server.processes",
            "dev.oddbeacon.server.records",
            "dev.oddbeacon.server.secrets"
        },
        excludeFilters =
                @ComponentScan.Filter(
                        type = FilterType.ANNOTATION,
                        classes = {Controller.class, ControllerAdvice.class}))
class IndexingMain {}
