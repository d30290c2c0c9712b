package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.CaseFolding;
import java.util.Arrays;
import java.util.function.IntConsumer;
import java.util.function.IntPredicate;

/**
 * A set of code points, as ranges. Immutable.
 *
 * @param ranges first and last of each range, ascending, with at least one code point between one range and the next
 */
public record CharSet(int[] ranges) {
    static final CharSet NONE = new CharSet(new int[0]);
    static final CharSet ANY = new CharSet(new int[] {0, Character.MAX_CODE_POINT});

    static CharSet of(int codePoint) {
        return new CharSet(new int[] {codePoint, codePoint});
    }

    /** All code points that are accepted. */
    public static CharSet where(IntPredicate accepted) {
        int[] ranges = new int[64];
        int length = 0;
        for (int c = 0; c <= Character.MAX_CODE_POINT; c++) {
            if (!accepted.test(c)) {
                continue;
            }
            if (length > 0 && ranges[length - 1] == c - 1) {
                ranges[length - 1] = c;
                continue;
            }
            if (length == ranges.length) {
                ranges = Arrays.copyOf(ranges, length * 2);
            }
            ranges[length++] = c;
            ranges[length++] = c;
        }
        return new CharSet(Arrays.copyOf(ranges, length));
    }

    static CharSet range(int low, int high) {
        return low > high ? NONE : new CharSet(new int[] {low, high});
    }

    boolean isEmpty() {
        return ranges.length == 0;
    }

    /** Number of code points in the set. */
    long size() {
        long size = 0;
        for (int i = 0; i < ranges.length; i += 2) {
            size += ranges[i + 1] - ranges[i] + 1;
        }
        return size;
    }

    void forEach(IntConsumer consumer) {
        for (int i = 0; i < ranges.length; i += 2) {
            for (int c = ranges[i]; c <= ranges[i + 1]; c++) {
                consumer.accept(c);
            }
        }
    }

    CharSet or(CharSet other) {
        if (isEmpty()) {
            return other;
        }
        int count = ranges.length / 2 + other.ranges.length / 2;
        long[] all = new long[count]; // first in the upper half, so that sorting is by first
        int at = 0;
        for (CharSet set : new CharSet[] {this, other}) {
            for (int i = 0; i < set.ranges.length; i += 2) {
                all[at++] = (long) set.ranges[i] << 32 | set.ranges[i + 1];
            }
        }
        Arrays.sort(all);
        int[] merged = new int[2 * count];
        int length = 0;
        for (long range : all) {
            int low = (int) (range >>> 32);
            int high = (int) range;
            if (length > 0 && low <= merged[length - 1] + 1) {
                merged[length - 1] = Math.max(merged[length - 1], high);
            } else {
                merged[length++] = low;
                merged[length++] = high;
            }
        }
        return new CharSet(Arrays.copyOf(merged, length));
    }

    CharSet negated() {
        int[] result = new int[ranges.length + 2];
        int length = 0;
        int next = 0;
        for (int i = 0; i < ranges.length; i += 2) {
            if (ranges[i] > next) {
                result[length++] = next;
                result[length++] = ranges[i] - 1;
            }
            next = ranges[i + 1] + 1;
        }
        if (next <= Character.MAX_CODE_POINT) {
            result[length++] = next;
            result[length++] = Character.MAX_CODE_POINT;
        }
        return new CharSet(Arrays.copyOf(result, length));
    }

    /** The set plus all code points that differ from one of its members only in case. */
    CharSet inAnyCase() {
        int[] added = new int[16];
        int count = 0;
        for (int i = 0; i < ranges.length; i += 2) {
            for (int c : CaseFolding.caseVariantsOf(ranges[i], ranges[i + 1])) {
                if (count == added.length) {
                    added = Arrays.copyOf(added, count * 2);
                }
                added[count++] = c;
            }
        }
        int[] variants = new int[2 * count];
        Arrays.sort(added, 0, count);
        int length = 0;
        for (int i = 0; i < count; i++) {
            if (length > 0 && added[i] <= variants[length - 1] + 1) {
                variants[length - 1] = added[i];
            } else {
                variants[length++] = added[i];
                variants[length++] = added[i];
            }
        }
        return or(new CharSet(Arrays.copyOf(variants, length)));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof CharSet set && Arrays.equals(ranges, set.ranges);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(ranges);
    }
}
