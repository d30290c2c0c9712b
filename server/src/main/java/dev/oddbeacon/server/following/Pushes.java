package dev.oddbeacon.server.following;

import dev.oddbeacon.server.catalogue.Locations;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.IndexJobs;
import java.util.List;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Queues the repositories that something was pushed to. */
@Component
class Pushes {
    private static final Logger LOG = LoggerFactory.getLogger(Pushes.class);

    private final Locations locations;
    private final IndexJobs jobs;

    Pushes(Locations locations, IndexJobs jobs) {
        this.locations = locations;
        this.jobs = jobs;
    }

    /** Queues all repositories that one of the texts is an address of. */
    void told(Set<String> texts) {
        List<Long> pushed = texts.stream()
                .flatMap(text -> locations.at(text).stream())
                .map(Repository::id)
                .distinct()
                .toList();
        pushed.forEach(jobs::refresh);
        if (pushed.isEmpty()) {
            LOG.info("A message told of a push to a repository that is not registered");
        }
    }
}
