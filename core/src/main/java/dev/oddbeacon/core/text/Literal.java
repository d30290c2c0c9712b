package dev.oddbeacon.core.text;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/**
 * A text to be found literally, as the code points that a match must have, and the run of them that a scan looks
 * for first.
 *
 * <p>When case counts, the run is the whole text. When it does not, the members of a letter may differ in length
 * ({@code k} is one byte, KELVIN SIGN three), so the run is the longest stretch of code points whose forms are all
 * of one length: ASCII letters but k and s, and code points that have no other case. The rest is compared code
 * point by code point, backwards and forwards from the run. A text without such a stretch has an empty run.
 *
 * @param codePoints of the text; folded if case is ignored; never empty
 * @param ignoresCase whether case is ignored
 * @param runStart index of the first code point of the run
 * @param run UTF-8 bytes of the run, letters folded
 * @param caseBits for each byte of the run 0x20 where the other case of a letter differs by that bit, else 0
 */
record Literal(int[] codePoints, boolean ignoresCase, int runStart, byte[] run, byte[] caseBits) {

    static Literal of(String text, boolean ignoreCase) {
        if (text.isEmpty()) {
            throw new IllegalArgumentException("An empty text cannot be scanned for.");
        }
        if (!ignoreCase) {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            return new Literal(text.codePoints().toArray(), false, 0, bytes, new byte[bytes.length]);
        }
        int[] folded = CaseFolding.fold(text);
        int[] best = longestRun(folded);
        byte[] run = new String(folded, best[0], best[1]).getBytes(StandardCharsets.UTF_8);
        byte[] caseBits = new byte[run.length];
        for (int i = 0; i < run.length; i++) {
            caseBits[i] = (byte) (run[i] >= 'a' && run[i] <= 'z' ? 0x20 : 0);
        }
        return new Literal(folded, true, best[0], run, caseBits);
    }

    /** Code points of the run. */
    int runLength() {
        String text = new String(run, StandardCharsets.UTF_8);
        return text.codePointCount(0, text.length());
    }

    /** Start and count of the longest stretch of code points that have one form, or two that differ by one bit. */
    private static int[] longestRun(int[] folded) {
        int[] best = {0, 0};
        int start = 0;
        for (int i = 0; i <= folded.length; i++) {
            if (i == folded.length || !isSteady(folded[i])) {
                if (i - start > best[1]) {
                    best = new int[] {start, i - start};
                }
                start = i + 1;
            }
        }
        return best;
    }

    private static boolean isSteady(int folded) {
        boolean otherLetter = folded == 'k' || folded == 's'; // KELVIN SIGN, LATIN SMALL LETTER LONG S
        return folded < 0x80 ? !otherLetter : CaseFolding.others(folded).length == 0;
    }

    /** The two bytes of the run to compare first: the rarest ones in source text, by a fixed order of frequency. */
    ByteScan.Anchor anchor(int[] indexes) {
        int first = indexes[0];
        int second = indexes[1];
        return new ByteScan.Anchor(run[first], caseBits[first], run[second], caseBits[second], second - first);
    }

    /** Indexes of the anchor's bytes in the run, ascending; both are the same for a run of one byte. */
    int[] anchorIndexes() {
        List<Integer> byRarity = new ArrayList<>();
        for (int i = 0; i < run.length; i++) {
            byRarity.add(i);
        }
        byRarity.sort((a, b) -> Integer.compare(ByteFrequency.rank(run[b]), ByteFrequency.rank(run[a])));
        int rarest = byRarity.getFirst();
        int next = rarest;
        for (int index : byRarity) {
            if (run[index] != run[rarest]) {
                next = index;
                break;
            }
        }
        if (next == rarest && byRarity.size() > 1) {
            next = byRarity.get(1);
        }
        return new int[] {Math.min(rarest, next), Math.max(rarest, next)};
    }
}
