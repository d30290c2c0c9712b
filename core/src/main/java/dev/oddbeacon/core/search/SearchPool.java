package dev.oddbeacon.core.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.PriorityBlockingQueue;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * The bounded number of platform threads that scan for all searches. Work is done in slices of a few milliseconds,
 * and the next slice is always one of the search that has had the least so far: a cheap search waits for one slice,
 * however many expensive ones there are. A slice that cannot end yet, because one file takes long, asks now and then
 * whether it should give way, and lets the slices of others run in its place. A search begins on the thread that asks:
 * most are over before another one has woken up.
 */
public final class SearchPool implements AutoCloseable {
    private final PriorityBlockingQueue<Slice> queue = new PriorityBlockingQueue<>(
            64, Comparator.comparingLong((Slice slice) -> slice.consumed).thenComparingLong(slice -> slice.number));
    private final AtomicLong numbers = new AtomicLong();
    private final AtomicInteger asking = new AtomicInteger(); // threads that work on a search which they ask for
    private static final long SLICE_NANOS = 4_000_000;
    /** How long the thread that asks works alone. */
    private static final long ALONE_NANOS = 1_000_000;
    /** Slices that gave way to each other on one thread; each takes a little stack. */
    private static final int DEEPEST = 200;

    private final Worker[] threads;
    private volatile boolean closed;

    public SearchPool(int threads) {
        this.threads = new Worker[threads];
        for (int i = 0; i < threads; i++) {
            this.threads[i] = new Worker("search-" + (i + 1));
            this.threads[i].setDaemon(true);
            this.threads[i].start();
        }
    }

    public int threads() {
        return threads.length;
    }

    /** What one thread does for a search; several of them take their parts from the same heap. */
    @FunctionalInterface
    public interface Work {
        /**
         * Does some of it.
         *
         * @param nanos after which it is somebody else's turn
         * @return whether no part is left to take
         */
        boolean goOn(long nanos);
    }

    private record Slice(Work work, Budget budget, CompletableFuture<Void> done, long consumed, long number) {}

    /** Runs slices until nothing is left. The future fails as a slice fails. */
    Future<Void> runInSlices(Budget budget, Work work) {
        CompletableFuture<Void> done = new CompletableFuture<>();
        enqueue(work, budget, done);
        return done;
    }

    /**
     * Works until nothing is left, and waits for it: first the thread that asks, alone, then the pool's.
     *
     * @param parts how many there are; no more threads than that are of use
     * @param worker makes what one thread does
     */
    public void run(Budget budget, int parts, Supplier<Work> worker) {
        Work first = worker.get();
        if (begin(budget, first)) {
            return;
        }
        List<Future<Void>> running = new ArrayList<>(List.of(runInSlices(budget, first)));
        for (int i = 1; i < Math.min(threads.length, parts); i++) {
            running.add(runInSlices(budget, worker.get()));
        }
        running.forEach(SearchPool::await);
    }

    /** Works on the thread that asks, unless as many as the pool has threads do so already. @return whether all is done */
    private boolean begin(Budget budget, Work work) {
        long start = System.nanoTime();
        try {
            return asking.incrementAndGet() <= threads.length && work.goOn(ALONE_NANOS);
        } finally {
            asking.decrementAndGet();
            budget.consume(System.nanoTime() - start);
        }
    }

    /** Applies a function to all inputs, several at a time, and waits. */
    public <A, B> List<B> map(Budget budget, List<A> inputs, Function<A, B> function) {
        Object[] results = new Object[inputs.size()];
        AtomicInteger next = new AtomicInteger();
        run(budget, inputs.size(), () -> nanos -> {
            long end = System.nanoTime() + nanos;
            int index = next.getAndIncrement();
            while (index < results.length) {
                results[index] = function.apply(inputs.get(index));
                if (System.nanoTime() > end) {
                    return next.get() >= results.length;
                }
                index = next.getAndIncrement();
            }
            return true;
        });
        @SuppressWarnings("unchecked")
        List<B> all = (List<B>) List.of(results);
        return all;
    }

    /** Runs a short computation and waits for it. */
    public <T> T call(Budget budget, Callable<T> computation) {
        CompletableFuture<T> result = new CompletableFuture<>();
        CompletableFuture<Void> done = new CompletableFuture<>();
        enqueue(
                _ -> {
                    try {
                        result.complete(computation.call());
                    } catch (Exception e) {
                        result.completeExceptionally(e);
                    }
                    return true;
                },
                budget,
                done);
        done.exceptionally(failure -> {
            result.completeExceptionally(failure);
            return null;
        });
        return await(result);
    }

    private void enqueue(Work work, Budget budget, CompletableFuture<Void> done) {
        if (closed) {
            throw new CancellationException("the service stops");
        }
        queue.add(new Slice(work, budget, done, budget.consumed(), numbers.incrementAndGet()));
    }

    /** Whether a search that is at work should stop; before it answers, others that had less run in its place. */
    public BooleanSupplier stop(Budget budget) {
        return () -> {
            if (Thread.currentThread() instanceof Worker worker) {
                worker.giveWay(budget);
            }
            return budget.isOver();
        };
    }

    private final class Worker extends Thread {
        private long sliceStart;
        private long otherNanos; // what went to slices that ran in the place of others
        private int depth;

        Worker(String name) {
            super(name);
        }

        @Override
        public void run() {
            while (!closed) {
                try {
                    work(queue.take());
                } catch (InterruptedException e) {
                    return;
                }
            }
        }

        private void giveWay(Budget budget) {
            long now = System.nanoTime();
            long running = now - sliceStart;
            Slice next = queue.peek();
            if (running < SLICE_NANOS
                    || depth >= DEEPEST
                    || next == null
                    || next.consumed >= budget.consumed() + running) {
                return;
            }
            Slice other = queue.poll();
            if (other != null) {
                long before = otherNanos;
                depth++;
                work(other);
                depth--;
                otherNanos = before + System.nanoTime() - now;
                sliceStart = System.nanoTime() - SLICE_NANOS / 2; // a little more, or it would never come to anything
            }
        }

        private void work(Slice slice) {
            sliceStart = System.nanoTime();
            runSlice(slice, this);
        }
    }

    private void runSlice(Slice slice, Worker worker) {
        long start = System.nanoTime();
        long before = worker.otherNanos;
        try {
            boolean isDone = slice.work.goOn(SLICE_NANOS);
            slice.budget.consume(System.nanoTime() - start - (worker.otherNanos - before));
            if (isDone) {
                slice.done.complete(null);
            } else {
                enqueue(slice.work, slice.budget, slice.done);
            }
        } catch (RuntimeException | Error e) {
            slice.done.completeExceptionally(e);
        }
    }

    public static <T> T await(Future<T> future) {
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

    @Override
    public void close() {
        closed = true;
        for (Worker thread : threads) {
            thread.interrupt();
        }
        for (Slice left = queue.poll(); left != null; left = queue.poll()) {
            left.done.completeExceptionally(new CancellationException("the service stops"));
        }
    }
}
