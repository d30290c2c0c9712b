package dev.oddbeacon.server.accounts;

import java.time.Duration;

/** Somebody has tried too often. */
public final class SlowDownException extends RuntimeException {
    private final Duration delay;

    SlowDownException(Duration delay) {
        super("Too many attempts failed. Try again in " + (delay.toSeconds() + 1) + " s.");
        this.delay = delay;
    }

    /** Until the next attempt. */
    public Duration delay() {
        return delay;
    }
}
