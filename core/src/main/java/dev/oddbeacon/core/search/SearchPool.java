package dev.oddbeacon.core.search;

import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;

/**
 * The bounded number of platform threads that scan for all searches. Work is done in slices: a search that is not
 * done after a few milliseconds goes to the end of the queue, so that a short one never waits for a long one.
 */
public final class SearchPool implements AutoCloseable {
    private final ExecutorService executor;
    private final int threads;

    public SearchPool(int threads) {
        this.threads = threads;
        AtomicInteger number = new AtomicInteger();
        this.executor = Executors.newFixedThreadPool(threads, task -> {
            Thread thread = new Thread(task, "search-" + number.incrementAndGet());
            thread.setDaemon(true);
            return thread;
        });
    }

    int threads() {
        return threads;
    }

    /** Runs a slice again and again until it says that all is done. The future fails as the slice fails. */
    Future<?> runInSlices(BooleanSupplier slice) {
        SliceTask task = new SliceTask(slice);
        executor.execute(task);
        return task.done;
    }

    /** Runs a short computation and waits for it. */
    <T> T call(Callable<T> computation) {
        return await(executor.submit(computation));
    }

    static <T> T await(Future<T> future) {
        try {
            return future.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException failure) {
                throw failure;
            }
            throw new IllegalStateException(e.getCause());
        }
    }

    private final class SliceTask implements Runnable {
        private final BooleanSupplier slice;
        private final java.util.concurrent.CompletableFuture<Void> done = new java.util.concurrent.CompletableFuture<>();

        SliceTask(BooleanSupplier slice) {
            this.slice = slice;
        }

        @Override
        public void run() {
            try {
                if (slice.getAsBoolean()) {
                    done.complete(null);
                } else {
                    executor.execute(this);
                }
            } catch (RuntimeException | Error e) {
                done.completeExceptionally(e);
            }
        }
    }

    @Override
    public void close() {
        executor.shutdownNow();
    }
}
