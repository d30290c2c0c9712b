package dev.oddbeacon.server.history;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.core.history.Blame;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * Origins of lines that were asked for lately: they never change, but take long to work out for files with a long past.
 */
@Component
class Origins {
    private static final long MOST_ORIGINS = 200_000;

    private final Cache<Key, List<Blame.Origin>> known = Caffeine.newBuilder()
            .maximumWeight(MOST_ORIGINS)
            .weigher((Key _, List<Blame.Origin> origins) -> origins.size() + 1)
            .build();

    record Key(String repository, ObjectId commit, String path, boolean ignoreSpace, Set<ObjectId> ignored) {}

    interface Work {
        List<Blame.Origin> of() throws IOException;
    }

    List<Blame.Origin> of(Key key, Work work) throws IOException {
        List<Blame.Origin> found = known.getIfPresent(key);
        if (found == null) {
            found = work.of();
            known.put(key, found);
        }
        return found;
    }
}
