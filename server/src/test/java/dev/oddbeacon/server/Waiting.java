package dev.oddbeacon.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.function.BooleanSupplier;

/** Waits for what the service does in the background. */
public final class Waiting {
    private Waiting() {}

    public static void until(BooleanSupplier condition) {
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("it takes too long").isLessThan(deadline);
            try {
                Thread.sleep(30);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }
}
