package dev.oddbeacon.core.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class SearchPoolTest {
    private final SearchPool pool = new SearchPool(2);

    @AfterEach
    void close() {
        pool.close();
    }

    @Test
    void aShortSearchIsNotStuckBehindLongOnes() throws Exception {
        AtomicBoolean enough = new AtomicBoolean();
        for (int i = 0; i < 20; i++) {
            pool.runInSlices(new Budget(Duration.ofMinutes(1)), enough::get); // each would go on for ever
        }
        assertThat(pool.runInSlices(new Budget(Duration.ofMinutes(1)), () -> true)
                        .get(5, TimeUnit.SECONDS))
                .isNull();
        assertThat(pool.<Integer>call(new Budget(Duration.ofMinutes(1)), () -> 7))
                .isEqualTo(7);
        enough.set(true);
    }

    @Test
    void slicesRunUntilTheWorkIsDone() throws Exception {
        AtomicInteger slices = new AtomicInteger();
        Future<?> done = pool.runInSlices(new Budget(Duration.ofMinutes(1)), () -> slices.incrementAndGet() == 5);
        done.get(5, TimeUnit.SECONDS);
        assertThat(slices).hasValue(5);
    }

    @Test
    void aFailureReachesWhoWaits() {
        Future<?> failing = pool.runInSlices(new Budget(Duration.ofMinutes(1)), () -> {
            throw new IllegalStateException("a defect");
        });
        assertThatThrownBy(() -> SearchPool.await(failing))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("a defect");
        assertThatThrownBy(() -> pool.call(new Budget(Duration.ofMinutes(1)), () -> {
                    throw new IllegalArgumentException("another");
                }))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
