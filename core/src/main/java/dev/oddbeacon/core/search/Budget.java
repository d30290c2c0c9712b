package dev.oddbeacon.core.search;

import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;

/** The time and memory that a search may take and has taken, and whether its asker still wants it. Thread-safe. */
public final class Budget {
    private final long start = System.nanoTime();
    private final Duration time;
    private final Optional<Budget> whole; // of which this is a part
    private final AtomicLong consumed = new AtomicLong();
    private volatile Optional<Stop> stop = Optional.empty();

    public Budget(Duration time) {
        this(time, Optional.empty());
    }

    private Budget(Duration time, Optional<Budget> whole) {
        this.time = time;
        this.whole = whole;
    }

    /** A budget for a part of the work, which also ends when this one does. */
    public Budget part(Duration most) {
        return new Budget(most, Optional.of(this));
    }

    /** The asker does not want the answer any more; threads at work on it stop within milliseconds. */
    public void cancel() {
        stop = Optional.of(Stop.CANCELLED);
    }

    /** The search needs more memory than one may have. */
    public void exhaust() {
        stop = Optional.of(Stop.MEMORY);
    }

    public boolean isOver() {
        return stop.isPresent()
                || System.nanoTime() - start > time.toNanos()
                || whole.isPresent() && whole.get().isOver();
    }

    /**
     * For work whose result is worth nothing unless it is whole.
     *
     * @throws BudgetOverException if it is over
     */
    public void demand() {
        if (isOver()) {
            throw new BudgetOverException();
        }
    }

    /** Why it is over, if it is. */
    public Optional<Stop> stop() {
        if (stop.isPresent() || !isOver()) {
            return stop;
        }
        return Optional.of(whole.flatMap(Budget::stop).orElse(Stop.TIME));
    }

    public Duration elapsed() {
        return Duration.ofNanos(System.nanoTime() - start);
    }

    /** Counts work that was done; of a part also for the whole. */
    void consume(long nanos) {
        consumed.addAndGet(nanos);
        whole.ifPresent(budget -> budget.consume(nanos));
    }

    /** Nanoseconds of work so far, of all threads. */
    long consumed() {
        return consumed.get();
    }
}
