package dev.oddbeacon.server.access;

import dev.oddbeacon.core.search.SearchPool;
import jakarta.annotation.PreDestroy;
import org.springframework.stereotype.Component;

/** The threads that searches run on: one pool for all of them, so that they share the processors fairly. */
@Component
class SearchThreads {
    private final SearchPool pool =
            new SearchPool(Math.max(1, Runtime.getRuntime().availableProcessors()));

    SearchPool pool() {
        return pool;
    }

    @PreDestroy
    void close() {
        pool.close();
    }
}
