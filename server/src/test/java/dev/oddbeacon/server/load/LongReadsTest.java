package dev.oddbeacon.server.load;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.server.web.BusyException;
import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;

class LongReadsTest {
    private final LongReads reads = new LongReads(Duration.ofMillis(50));

    @Test
    void workThatTakesTooLongIsGivenUp() {
        CountDownLatch goOn = new CountDownLatch(1);
        assertThatThrownBy(() -> reads.call(() -> {
                    goOn.await();
                    return "late";
                }))
                .isInstanceOf(BusyException.class);
        goOn.countDown();
    }

    @Test
    void workThatHasToEndIsWaitedFor() throws Exception {
        assertThat(reads.callToTheEnd(() -> {
                    Thread.sleep(Duration.ofMillis(200));
                    return "late";
                }))
                .isEqualTo("late");
        assertThatThrownBy(() -> reads.callToTheEnd(() -> {
                    throw new IllegalStateException("as it is");
                }))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("as it is");
    }
}
