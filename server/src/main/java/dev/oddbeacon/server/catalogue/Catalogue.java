package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.server.events.Events;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/**
 * The registered repositories in memory, so that searching and looking go on while MariaDB does not answer. Only
 * {@link RepositoryChanges} changes what is here, after it has changed the records.
 *
 * <p>Concurrency: one change at a time; readers take {@link #now}, which does not change.
 */
@Component
public class Catalogue {
    private final Events events;
    private final Activity activity;
    private final RepositoryInfos infos;
    private final Map<String, Repository> repositories = new TreeMap<>(); // guarded by this
    private long visibility; // guarded by this
    private volatile Registered now = new Registered(0, List.of());

    Catalogue(Events events, Activity activity, RepositoryInfos infos) {
        this.events = events;
        this.activity = activity;
        this.infos = infos;
    }

    /** What is registered now. */
    public Registered now() {
        Registered known = now;
        return known.isStale() ? gather() : known;
    }

    /** Many changes in a row are gathered once. */
    private synchronized Registered gather() {
        if (now.isStale()) {
            now = new Registered(visibility, List.copyOf(repositories.values()));
        }
        return now;
    }

    /** All of them, by name. */
    public List<Repository> all() {
        return now().all();
    }

    public Optional<Repository> find(String name) {
        return now().find(name);
    }

    Optional<Repository> find(long id) {
        return now().all().stream().filter(repository -> repository.id() == id).findFirst();
    }

    void put(Repository repository) {
        keep(repository);
        activity.ended(repository.id());
        tell(repository);
    }

    private void tell(Repository repository) {
        events.send("repository", Optional.of(repository.name()), infos.of(repository));
    }

    private synchronized void keep(Repository repository) {
        Repository before = repositories.put(repository.name(), repository);
        if (before == null || !before.viewers().equals(repository.viewers())) {
            visibility++;
        }
        now.outdate();
    }

    /** Fills the catalogue at the start, before anybody listens. */
    void load(List<Repository> all) {
        all.forEach(this::keep);
    }

    void remove(Repository repository) {
        String name = repository.name();
        events.send("removed", Optional.of(name), Map.of("name", name)); // while it is known who may see it
        activity.forget(repository.id());
        synchronized (this) {
            repositories.remove(name);
            visibility++;
            now.outdate();
        }
    }

    /** Progress with a repository, until its record changes. */
    public void progress(long id, Repository.Progress progress) {
        find(id).ifPresent(repository -> {
            activity.progress(repository.id(), progress);
            tell(repository);
        });
    }

    /** Tells those who look on what is known of a repository's origin now. */
    public void checked(Repository repository) {
        find(repository.name()).ifPresent(this::tell);
    }
}
