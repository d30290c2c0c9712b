package dev.oddbeacon.server.catalogue;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** The repositories that are registered at one time. Immutable but for what is worked out once, and whether it is still so. */
public final class Registered {
    private static final int MOST_KEPT = 200;

    private final long visibility;
    private final List<Repository> all;
    private final Map<Object, List<Repository>> seen =
            Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
                private static final long serialVersionUID = 1;

                @Override
                protected boolean removeEldestEntry(Map.Entry<Object, List<Repository>> eldest) {
                    return size() > MOST_KEPT;
                }
            });
    private volatile Set<String> viewers;
    private volatile boolean stale;

    /** @param all by name */
    Registered(long visibility, List<Repository> all) {
        this.visibility = visibility;
        this.all = all;
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
        int low = 0;
        int high = all.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (all.get(middle).name().compareTo(name) < 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low < all.size() && all.get(low).name().equals(name) ? Optional.of(all.get(low)) : Optional.empty();
    }

    /** All viewers that a repository has. */
    public Set<String> viewers() {
        Set<String> known = viewers;
        if (known == null) { // two threads may gather them at once; they are the same
            known = all.stream()
                    .flatMap(repository -> repository.viewers().stream())
                    .collect(Collectors.toUnmodifiableSet());
            viewers = known;
        }
        return known;
    }

    /** Those that somebody sees, by name. @param key equal for all who see the same */
    public List<Repository> seenBy(Object key, Predicate<Repository> sees) {
        return seen.computeIfAbsent(key, _ -> all.stream().filter(sees).toList());
    }
}
