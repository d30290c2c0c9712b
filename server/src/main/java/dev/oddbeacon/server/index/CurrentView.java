package dev.oddbeacon.server.index;

import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import jakarta.annotation.PreDestroy;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.stereotype.Component;

/**
 * The view that new requests see.
 *
 * <p>Concurrency: it is taken without a lock and never waits for a database. Only the {@link Publisher} swaps it, which
 * lets go of the view before; a request that read the old one just then finds it closed, and takes the new one.
 */
@Component
public class CurrentView {
    private final AtomicReference<View> current = new AtomicReference<>(ViewBuilder.empty());

    /** The current view; the caller releases it. */
    public View acquire() {
        while (true) {
            View view = current.get();
            if (view.acquire()) {
                return view;
            }
            if (current.get() == view) {
                throw new CancellationException("the service stops");
            }
        }
    }

    /** @param next held by its maker, who hands it over */
    void swap(View next) {
        current.getAndSet(next).release();
    }

    @PreDestroy
    void close() {
        current.get().release();
    }
}
