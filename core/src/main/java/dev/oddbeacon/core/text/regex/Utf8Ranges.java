package dev.oddbeacon.core.text.regex;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Writes a range of code points as sequences of byte ranges: U+0080 to U+0801 is [C2-DF][80-BF] or E0 A0 [80-81]. */
final class Utf8Ranges {
    private static final int[] LAST_OF_LENGTH = {0x7F, 0x7FF, 0xFFFF, Character.MAX_CODE_POINT};

    private Utf8Ranges() {}

    private static int range(int low, int high) {
        return low << 8 | high;
    }

    /** @return sequences of {@code low << 8 | high} */
    static List<int[]> of(int low, int high) {
        List<int[]> sequences = new ArrayList<>();
        int from = low;
        for (int last : LAST_OF_LENGTH) {
            if (from > last || from > high) {
                continue;
            }
            int until = Math.min(high, last);
            if (last == 0xFFFF) { // no text holds a surrogate
                ofOneLength(from, Math.min(until, Character.MIN_SURROGATE - 1), sequences);
                ofOneLength(Math.max(from, Character.MAX_SURROGATE + 1), until, sequences);
            } else {
                ofOneLength(from, until, sequences);
            }
            from = until + 1;
        }
        return sequences;
    }

    private static void ofOneLength(int low, int high, List<int[]> sequences) {
        if (low > high) {
            return;
        }
        byte[] first = Character.toString(low).getBytes(StandardCharsets.UTF_8);
        for (int tail = 1; tail < first.length; tail++) {
            int block = (1 << 6 * tail) - 1;
            if ((low & ~block) == (high & ~block)) {
                continue;
            }
            if ((low & block) != 0) {
                ofOneLength(low, low | block, sequences);
                ofOneLength((low | block) + 1, high, sequences);
                return;
            }
            if ((high & block) != block) {
                ofOneLength(low, (high & ~block) - 1, sequences);
                ofOneLength(high & ~block, high, sequences);
                return;
            }
        }
        byte[] last = Character.toString(high).getBytes(StandardCharsets.UTF_8);
        int[] sequence = new int[first.length];
        for (int i = 0; i < sequence.length; i++) {
            sequence[i] = range(first[i] & 0xFF, last[i] & 0xFF);
        }
        sequences.add(sequence);
    }
}
