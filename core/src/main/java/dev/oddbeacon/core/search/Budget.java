package dev.oddbeacon.core.search;

import dev.oddbeacon.core.search.LineAnswer.Stop;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;

/** What a search may take, what it has taken, and whether its asker still wants it. Thread-safe. */
public final class Budget {
    private final long start = System.nanoTime();
    private final long deadline;
    private final AtomicLong consumed = new AtomicLong();
    private volatile Optional<Stop> stop = Optional.empty();

    public Budget(Duration time) {
        this.deadline = start + time.toNanos();
    }

    /** The asker does not want the answer any more; threads at work on it stop within milliseconds. */
    public void cancel() {
        stop = Optional.of(Stop.CANCELLED);
    }

    /** The search needs more memory than one may have. */
    void exhaust() {
        stop = Optional.of(Stop.MEMORY);
    }

    public boolean isOver() {
        return stop.isPresent() || System.nanoTime() - deadline > 0;
    }

    /** Why it is over, if it is. */
    Optional<Stop> stop() {
        return stop.isPresent() || !isOver() ? stop : Optional.of(Stop.TIME);
    }

    public Duration elapsed() {
        return Duration.ofNanos(System.nanoTime() - start);
    }

    void consume(long nanos) {
        consumed.addAndGet(nanos);
    }

    /** Nanoseconds of work so far, of all threads. */
    long consumed() {
        return consumed.get();
    }
}
