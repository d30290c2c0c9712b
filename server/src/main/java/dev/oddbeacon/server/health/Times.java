package dev.oddbeacon.server.health;

import java.time.Duration;
import java.util.Arrays;
import java.util.OptionalDouble;
import java.util.stream.Stream;

/**
 * How many searches took how long: counts by ranges that grow by half or so, so that those of many minutes can be added,
 * and a percentile is told to within a part of its range.
 *
 * @param counts one for each range, and one for all that is longer
 */
record Times(long[] counts) {
    /** Where the ranges end, in milliseconds. */
    private static final double[] ENDS = {
        1, 1.5, 2, 3, 5, 7, 10, 15, 20, 30, 50, 70, 100, 150, 200, 300, 500, 700, 1_000, 2_000, 5_000, 10_000
    };

    static final Times NONE = new Times(new long[ENDS.length + 1]);

    Times {
        if (counts.length != ENDS.length + 1) {
            throw new IllegalArgumentException(counts.length + " ranges, not " + (ENDS.length + 1));
        }
    }

    /** Where the ranges end. */
    static Duration[] ends() {
        return Arrays.stream(ENDS)
                .mapToObj(millis -> Duration.ofNanos(Math.round(millis * 1e6)))
                .toArray(Duration[]::new);
    }

    /** @param upTo how many took at most as long as the end of each range, and how many there were */
    static Times ofCumulative(double[] upTo) {
        long[] counts = new long[upTo.length];
        for (int i = 0; i < upTo.length; i++) {
            counts[i] = Math.round(upTo[i] - (i == 0 ? 0 : upTo[i - 1]));
        }
        return new Times(counts);
    }

    Times plus(Times other) {
        long[] sums = counts.clone();
        Arrays.setAll(sums, i -> sums[i] + other.counts[i]);
        return new Times(sums);
    }

    Times minus(Times earlier) {
        long[] rest = counts.clone();
        Arrays.setAll(rest, i -> Math.max(0, rest[i] - earlier.counts[i]));
        return new Times(rest);
    }

    static Times sum(Stream<Times> all) {
        return all.reduce(NONE, Times::plus);
    }

    long total() {
        return Arrays.stream(counts).sum();
    }

    /** @param part from 0 to 1 @return milliseconds that this part took at most; empty if there is none */
    OptionalDouble millisOf(double part) {
        double wanted = part * total();
        double below = 0;
        for (int i = 0; i < counts.length; i++) {
            if (counts[i] > 0 && below + counts[i] >= wanted) {
                double start = i == 0 ? 0 : ENDS[i - 1];
                double end = i == ENDS.length ? ENDS[i - 1] : ENDS[i]; // of what is longer, no more is known
                return OptionalDouble.of(start + (end - start) * (wanted - below) / counts[i]);
            }
            below += counts[i];
        }
        return OptionalDouble.empty();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Times(long[] others) && Arrays.equals(counts, others);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(counts);
    }

    @Override
    public String toString() {
        return Arrays.toString(counts);
    }
}
