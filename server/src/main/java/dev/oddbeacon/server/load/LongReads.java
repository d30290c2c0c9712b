package dev.oddbeacon.server.load;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.web.BusyException;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * The bounded number of platform threads that compute what is no search: files, differences, origins of lines, trees.
 *
 * <p>Concurrency: requests are taken in by virtual threads, which share as many carriers as there are processors; one
 * that computed would hold a carrier, and two of them would hold up everybody. So they only wait, here and for the
 * threads of searches. What takes longer than it may is told so to its caller; the thread is free again when the work
 * sees that its budget is over.
 */
@Component
public class LongReads {
    private static final int WAITING = 256;
    private static final Duration GRACE = Duration.ofSeconds(2);

    private final ThreadPoolExecutor threads;
    private final Duration most;
    private final Map<String, Object> running = new ConcurrentHashMap<>(); // work that takes its time, by name

    @Autowired
    LongReads(Settings settings) {
        this(settings.searchTime().plus(GRACE));
    }

    /** @param most how long work may take */
    LongReads(Duration most) {
        int count = Math.max(4, 2 * Runtime.getRuntime().availableProcessors());
        this.threads = new ThreadPoolExecutor(
                count,
                count,
                1,
                TimeUnit.MINUTES,
                new ArrayBlockingQueue<>(WAITING),
                Thread.ofPlatform().daemon().name("read-", 1).factory());
        this.most = most;
    }

    /**
     * Computes and waits.
     *
     * @throws BusyException if too many wait already, or it takes too long
     */
    public <T> T call(Callable<T> work) throws Exception {
        FutureTask<T> task = begun(work);
        try {
            return task.get(most.toNanos(), TimeUnit.NANOSECONDS);
        } catch (TimeoutException e) {
            task.cancel(false); // an interrupt would close the files that it reads
            throw new BusyException("This took longer than " + most.toSeconds()
                    + " s and was given up. Ask for less: a smaller file, a folder, fewer commits.");
        } catch (ExecutionException e) {
            throw unwrapped(e);
        }
    }

    private <T> FutureTask<T> begun(Callable<T> work) {
        FutureTask<T> task = new FutureTask<>(work);
        try {
            threads.execute(task);
        } catch (RejectedExecutionException e) {
            throw new BusyException("Too many requests are waiting. Try again in a moment.");
        }
        return task;
    }

    /**
     * Computes and waits as long as it takes: for what takes no more than seconds, whoever asks, on whatever machine.
     *
     * @throws BusyException if too many wait already
     */
    <T> T callToTheEnd(Callable<T> work) throws Exception {
        try {
            return begun(work).get();
        } catch (ExecutionException e) {
            throw unwrapped(e);
        }
    }

    /**
     * Computes on a thread of its own, and waits as long as it takes.
     *
     * @param name of the kind of work, one of which runs at a time
     * @throws BusyException if another one runs
     */
    <T> T callAlone(String name, Callable<T> work) throws Exception {
        if (running.putIfAbsent(name, work) != null) {
            throw new BusyException("This is being done already. Wait until it ends.");
        }
        try {
            FutureTask<T> task = new FutureTask<>(work);
            Thread.ofPlatform().daemon().name(name).start(task);
            return task.get();
        } catch (ExecutionException e) {
            throw unwrapped(e);
        } finally {
            running.remove(name);
        }
    }

    private static Exception unwrapped(ExecutionException e) {
        return switch (e.getCause()) {
            case Exception cause -> cause;
            case Error cause -> throw cause;
            default -> e;
        };
    }

    @PreDestroy
    void close() {
        threads.shutdown();
    }
}
