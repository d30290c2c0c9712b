package dev.oddbeacon.server.index;

import dev.oddbeacon.core.search.SearchPool;
import jakarta.annotation.PreDestroy;
import org.springframework.stereotype.Component;

/** The threads that searches run on: one pool for all of them, so that they share the processors fairly. */
@Component
public class Searches {
    private final SearchPool pool = new SearchPool(Math.max(1, Runtime.getRuntime().availableProcessors()));

    public SearchPool searches() {
        return pool;
    }

    @PreDestroy
    void close() {
        pool.close();
    }
}
