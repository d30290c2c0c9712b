package dev.oddbeacon.server.following;

import dev.oddbeacon.git.Location;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Registered;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.IndexJobs;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Queues the repositories that something was pushed to. */
@Component
class Pushes {
    private static final Logger LOG = LoggerFactory.getLogger(Pushes.class);

    private final Catalogue catalogue;
    private final IndexJobs jobs;
    private final Map<String, Optional<String>> keys = new ConcurrentHashMap<>(); // by location: links are followed
    private volatile Addresses known = new Addresses(List.of(), Map.of());

    Pushes(Catalogue catalogue, IndexJobs jobs) {
        this.catalogue = catalogue;
        this.jobs = jobs;
    }

    /** Ids of repositories by the key of their location. @param of the repositories that it was made of */
    private record Addresses(List<Repository> of, Map<String, List<Long>> ids) {}

    /** Queues all repositories that one of the texts is an address of. */
    void told(Set<String> texts) {
        Map<String, List<Long>> ids = addresses(catalogue.now()).ids;
        List<Long> pushed = texts.stream()
                .map(Location::key)
                .flatMap(Optional::stream)
                .distinct()
                .flatMap(key -> ids.getOrDefault(key, List.of()).stream())
                .distinct()
                .toList();
        pushed.forEach(jobs::refresh);
        if (pushed.isEmpty()) {
            LOG.info("A message told of a push to a repository that is not registered");
        }
    }

    private Addresses addresses(Registered registered) {
        Addresses addresses = known;
        if (addresses.of != registered.all()) {
            Map<String, List<Long>> ids = new HashMap<>();
            for (Repository repository : registered.all()) {
                keys.computeIfAbsent(repository.location(), Location::key)
                        .ifPresent(key ->
                                ids.computeIfAbsent(key, _ -> new ArrayList<>()).add(repository.id()));
            }
            addresses = new Addresses(registered.all(), ids);
            known = addresses;
        }
        return addresses;
    }
}
