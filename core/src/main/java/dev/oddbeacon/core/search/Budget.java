package dev.oddbeacon.core.search;

import java.time.Duration;

/** What a search may take, and whether its asker still wants it. Thread-safe. */
public final class Budget {
    private final long start = System.nanoTime();
    private final long deadline;
    private volatile boolean cancelled;

    public Budget(Duration time) {
        this.deadline = start + time.toNanos();
    }

    /** The asker does not want the answer any more; threads at work on it stop within milliseconds. */
    public void cancel() {
        cancelled = true;
    }

    public boolean isCancelled() {
        return cancelled;
    }

    public boolean isOver() {
        return cancelled || System.nanoTime() - deadline > 0;
    }

    public Duration elapsed() {
        return Duration.ofNanos(System.nanoTime() - start);
    }
}
