package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.server.events.Events;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentSkipListMap;
import org.springframework.stereotype.Component;

/**
 * The registered repositories in memory, so that searching and looking go on while MariaDB does not answer. Only
 * {@link RepositoryChanges} changes what is here, after it has changed the records.
 */
@Component
public class Catalogue {
    private final Events events;
    private final Map<String, Repository> repositories = new ConcurrentSkipListMap<>();

    Catalogue(Events events) {
        this.events = events;
    }

    /** All of them, by name. */
    public List<Repository> all() {
        return List.copyOf(repositories.values());
    }

    public Optional<Repository> find(String name) {
        return Optional.ofNullable(repositories.get(name));
    }

    void put(Repository repository) {
        repositories.put(repository.name(), repository);
        events.send("repository", Optional.of(repository.name()), RepositoryInfos.of(repository));
    }

    /** Fills the catalogue at the start, before anybody listens. */
    void load(List<Repository> all) {
        all.forEach(repository -> repositories.put(repository.name(), repository));
    }

    void remove(String name) {
        events.send("removed", Optional.of(name), Map.of("name", name)); // while it is known who may see it
        repositories.remove(name);
    }

    /** Progress with a repository, until its record changes. */
    public void progress(String name, Repository.Progress progress) {
        Repository changed = repositories.computeIfPresent(name, (_, old) -> old.with(progress));
        if (changed != null) {
            events.send("repository", Optional.of(name), RepositoryInfos.of(changed));
        }
    }
}
