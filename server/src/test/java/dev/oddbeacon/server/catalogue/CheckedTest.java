package dev.oddbeacon.server.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.catalogue.Checked.Behind;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** When a repository is asked again, and what is known of it after each answer. */
class CheckedTest {
    private static final Instant NOW = Instant.parse("2026-05-01T12:00:00Z");
    private static final Duration SHORTEST = Duration.ofMinutes(1);
    private static final Duration LONGEST = Duration.ofHours(1);

    private static Checked fetched(Instant newest) {
        return Checked.never(NOW).fetched(NOW, "a", newest, Behind.NOT);
    }

    private static Duration until(Checked check) {
        return Duration.between(check.tried(), check.next(SHORTEST, LONGEST, 0));
    }

    @ParameterizedTest
    @CsvSource({"PT0S,PT1M", "PT20M,PT1M", "PT40M,PT2M", "PT10H,PT30M", "PT20H,PT1H", "P400D,PT1H"})
    void isAskedTheMoreOftenTheLaterItChanged(Duration quiet, Duration expected) {
        assertThat(until(fetched(NOW.minus(quiet)))).isEqualTo(expected);
    }

    @Test
    void aCommitOfTheFutureIsNoReasonToAskLater() {
        assertThat(until(fetched(NOW.plus(Duration.ofDays(9))))).isEqualTo(SHORTEST);
    }

    @Test
    void isAskedLaterAndLaterWhileItDoesNotAnswerAndAtOnceAsBeforeWhenItDoes() {
        Checked check = fetched(NOW);
        for (int minutes : new int[] {2, 4, 8, 16, 32, 60, 60, 60}) {
            check = check.silent(check.next(SHORTEST, LONGEST, 0), "it is gone");
            assertThat(until(check)).isEqualTo(Duration.ofMinutes(minutes));
        }
        for (int i = 0; i < 100; i++) {
            check = check.silent(check.tried(), "it is gone");
        }
        assertThat(until(check)).isEqualTo(LONGEST);
        check = check.listed(check.tried(), true);
        assertThat(check.problem()).isEmpty();
        assertThat(check.failures()).isZero();
    }

    @Test
    void whatAnswersAndCannotBeFetchedIsTriedOnceADayInTheEnd() {
        Checked check = fetched(NOW);
        for (int i = 0; i < 20; i++) {
            check = check.listed(check.tried(), false).notFetched(check.tried(), "it is too large");
        }
        assertThat(until(check)).isEqualTo(Duration.ofDays(1));
        assertThat(check.refs()).as("it is to be fetched").isEmpty();
    }

    @Test
    void thoseThatAreDueTogetherAreSpread() {
        Checked check = fetched(NOW.minus(Duration.ofDays(9)));
        assertThat(check.next(SHORTEST, LONGEST, -1)).isEqualTo(NOW.plus(Duration.ofMinutes(54)));
        assertThat(check.next(SHORTEST, LONGEST, 1)).isEqualTo(NOW.plus(Duration.ofMinutes(66)));
    }

    @Test
    void isBehindFromSeeingAChangeUntilItIsIndexed() {
        Instant later = NOW.plus(Duration.ofHours(3));
        Checked check = fetched(NOW.minus(Duration.ofDays(9))).listed(later, false);
        assertThat(check.behind()).isEqualTo(Behind.BY_SOME);
        assertThat(check.changed()).isEqualTo(later);
        assertThat(check.indexed().behind()).isEqualTo(Behind.NOT);
        assertThat(check.fetched(later, "b", NOW, Behind.NOT).changed()).isEqualTo(later);
    }
}
