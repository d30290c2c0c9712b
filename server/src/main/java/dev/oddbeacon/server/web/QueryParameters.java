package dev.oddbeacon.server.web;

import java.util.Collection;
import org.springframework.context.annotation.Configuration;
import org.springframework.format.FormatterRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** A parameter that may be given several times is given several times: a comma in one is a comma, as in a path. */
@Configuration
class QueryParameters implements WebMvcConfigurer {
    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.removeConvertible(String.class, Collection.class); // it would split at commas
    }
}
