package dev.oddbeacon.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Settings;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;

/** One account cannot ask for everything. */
class QuotasTest {
    private Instant now = Instant.parse("2026-01-01T00:00:00Z");
    private final Clock clock = new Clock() {
        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return this;
        }

        @Override
        public Instant instant() {
            return now;
        }
    };
    private final Quotas quotas = new Quotas(new Settings.Quotas(120, 2), clock);

    private int taken(String account, int wanted) {
        int taken = 0;
        for (int i = 0; i < wanted; i++) {
            taken += quotas.take(account, false).isEmpty() ? 1 : 0;
        }
        return taken;
    }

    @Test
    void aQuarterOfAMinutesRequestsMayComeAtOnceAndTheOthersInTime() {
        assertThat(taken("edda", 100)).isEqualTo(30);
        assertThat(quotas.take("edda", false).orElseThrow()).contains("120 requests a minute");
        now = now.plusSeconds(5);
        assertThat(taken("edda", 100)).isEqualTo(10);
        now = now.plusSeconds(600);
        assertThat(taken("edda", 100)).isEqualTo(30);
    }

    @Test
    void anotherAccountHasItsOwn() {
        taken("edda", 100);
        assertThat(taken("jonas", 100)).isEqualTo(30);
    }

    @Test
    void twoSearchesRunAtATime() {
        assertThat(quotas.take("edda", true)).isEmpty();
        assertThat(quotas.take("edda", true)).isEmpty();
        assertThat(quotas.take("edda", true).orElseThrow()).contains("2 searches running");
        assertThat(quotas.take("edda", false)).as("other requests go on").isEmpty();
        quotas.searchEnded("edda");
        assertThat(quotas.take("edda", true)).isEmpty();
    }

    @Test
    void aClockThatGoesBackGivesNothing() {
        taken("edda", 100);
        now = now.minusSeconds(60);
        assertThat(taken("edda", 100)).isZero();
    }
}
