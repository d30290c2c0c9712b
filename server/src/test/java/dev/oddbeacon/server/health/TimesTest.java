package dev.oddbeacon.server.health;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TimesTest {
    private static final double[] ENDS =
            Arrays.stream(Times.ends()).mapToDouble(end -> end.toNanos() / 1e6).toArray();

    private static Times of(double... millis) {
        double[] upTo = new double[ENDS.length + 1];
        for (int i = 0; i < upTo.length; i++) {
            double end = i < ENDS.length ? ENDS[i] : Double.MAX_VALUE;
            upTo[i] = Arrays.stream(millis).filter(one -> one <= end).count();
        }
        return Times.ofCumulative(upTo);
    }

    @Test
    void percentilesLieInTheRangeThatTheTrueOneLiesIn() {
        Random random = new Random(20_261_129);
        for (int round = 0; round < 200; round++) {
            double[] millis = random.doubles(1 + random.nextInt(300), 0, 3)
                    .map(power -> Math.pow(10, power))
                    .toArray();
            double part = random.nextDouble();
            double[] sorted = Arrays.stream(millis).sorted().toArray();
            double real = sorted[Math.max(0, (int) Math.ceil(part * sorted.length) - 1)];
            double told = of(millis).millisOf(part).orElseThrow();
            double start = Arrays.stream(ENDS).filter(end -> end < real).max().orElse(0);
            double end = Arrays.stream(ENDS).filter(it -> it >= real).min().orElse(ENDS[ENDS.length - 1]);
            assertThat(told).as("part %s of %s", part, Arrays.toString(sorted)).isBetween(start, end);
        }
    }

    @Test
    void whatIsLongerThanAllRangesIsToldAsTheEndOfTheLast() {
        assertThat(of(60_000).millisOf(0.5)).hasValue(10_000);
    }

    @Test
    void nothingHasNoPercentile() {
        assertThat(Times.NONE.millisOf(0.5)).isEmpty();
    }

    @Test
    void timesAreAddedAndTakenAway() {
        Times both = of(2, 8).plus(of(700));
        assertThat(both.total()).isEqualTo(3);
        assertThat(both.minus(of(700))).isEqualTo(of(2, 8));
    }

    @Test
    void theRangesGrow() {
        assertThat(Times.ends())
                .isSorted()
                .doesNotHaveDuplicates()
                .contains(Duration.ofMillis(1), Duration.ofSeconds(10));
    }
}
