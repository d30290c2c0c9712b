package dev.oddbeacon.server.catalogue;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** The repositories that are registered at one time. Immutable but for what is worked out once, and whether it is still so. */
public final class Registered {
    private static final int MOST_KEPT = 200;

    private final long visibility;
    private final List<Repository> all;
    private final Map<String, Repository> byName;
    private final Set<String> viewers;
    private final Map<Object, List<Repository>> seen =
            Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
                private static final long serialVersionUID = 1;

                @Override
                protected boolean removeEldestEntry(Map.Entry<Object, List<Repository>> eldest) {
                    return size() > MOST_KEPT;
                }
            });
    private volatile boolean stale;

    /** @param all by name */
    Registered(long visibility, List<Repository> all) {
        this.visibility = visibility;
        this.all = all;
        this.byName = all.stream().collect(Collectors.toUnmodifiableMap(Repository::name, Function.identity()));
        this.viewers = all.stream()
                .flatMap(repository -> repository.viewers().stream())
                .collect(Collectors.toUnmodifiableSet());
    }

    void outdate() {
        stale = true;
    }

    boolean isStale() {
        return stale;
    }

    /** Another number whenever somebody may see something else than before. */
    public long visibility() {
        return visibility;
    }

    /** All of them, by name. */
    public List<Repository> all() {
        return all;
    }

    public Optional<Repository> find(String name) {
        return Optional.ofNullable(byName.get(name));
    }

    /** All viewers that a repository has. */
    public Set<String> viewers() {
        return viewers;
    }

    /** Those that somebody sees, by name. @param key equal for all who see the same */
    public List<Repository> seenBy(Object key, Predicate<Repository> sees) {
        return seen.computeIfAbsent(key, _ -> all.stream().filter(sees).toList());
    }
}
