package dev.oddbeacon.server.index;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import com.github.benmanes.caffeine.cache.Scheduler;
import dev.oddbeacon.core.snapshot.View;
import jakarta.annotation.PreDestroy;
import java.security.SecureRandom;
import java.time.Duration;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * The views that cursors need: each is kept for ten minutes after the last cursor into it was handed out.
 *
 * <p>Concurrency: the cache holds each view once; whoever takes one out acquires it, or finds that it is gone.
 */
@Component
public class KeptViews {
    private static final Duration CURSORS_LIVE = Duration.ofMinutes(10);

    private final long lineage = new SecureRandom().nextLong();
    private final Cache<Long, View> kept = Caffeine.newBuilder()
            .expireAfterWrite(CURSORS_LIVE)
            .scheduler(Scheduler.systemScheduler())
            .executor(Runnable::run)
            .removalListener((Long _, View view, RemovalCause _) -> view.release())
            .build();

    /** Tells the views of this process from those of any other process, and from its own before a restart. */
    public long lineage() {
        return lineage;
    }

    /** Keeps a view for a cursor that is about to be handed out. */
    public void keep(View view) {
        if (view.acquire() && kept.asMap().put(view.number(), view) == view) {
            view.release(); // it was kept already: of that the listener is not told
        }
    }

    /** A view that a cursor names; the caller releases it. Nothing if it is too old. */
    public Optional<View> acquire(long number) {
        return Optional.ofNullable(kept.getIfPresent(number)).filter(View::acquire);
    }

    /** Lets go of all: cursors from before are told that they are too old. */
    @PreDestroy
    void letGo() {
        kept.invalidateAll();
        kept.cleanUp();
    }
}
