package dev.oddbeacon.core.text;

import java.util.Arrays;

/**
 * How many characters must be inserted, deleted, changed or swapped with their neighbour to make one word another:
 * the "optimal string alignment" form of the distance of Damerau ("A technique for computer detection and correction
 * of spelling errors", 1964), in which no part is edited twice. Costs the product of both lengths.
 */
public final class EditDistance {
    private EditDistance() {}

    public static int of(String a, String b) {
        return of(a.codePoints().toArray(), b.codePoints().toArray());
    }

    /** Whether the distance from one word to the first letters of another is at most so much. */
    public static boolean atMost(int[] a, int[] b, int lettersOfB, int most) {
        int same = 0;
        int shorter = Math.min(a.length, lettersOfB);
        while (same < shorter && a[same] == b[same]) {
            same++;
        }
        int sameAtEnd = 0;
        while (sameAtEnd < shorter - same && a[a.length - 1 - sameAtEnd] == b[lettersOfB - 1 - sameAtEnd]) {
            sameAtEnd++;
        }
        int longestRest = Math.max(a.length, lettersOfB) - same - sameAtEnd;
        if (longestRest <= most) {
            return true;
        }
        return hasEnoughInCommon(a, b, lettersOfB, most)
                && of(
                                Arrays.copyOfRange(a, same, a.length - sameAtEnd),
                                Arrays.copyOfRange(b, same, lettersOfB - sameAtEnd))
                        <= most;
    }

    /** Each edit changes at most one of a word's distinct letters, by a set of 64; most words fall here. */
    private static boolean hasEnoughInCommon(int[] a, int[] b, int lettersOfB, int most) {
        long inA = 0;
        long inB = 0;
        for (int letter : a) {
            inA |= 1L << letter;
        }
        for (int i = 0; i < lettersOfB; i++) {
            inB |= 1L << b[i];
        }
        return Long.bitCount(inA & ~inB) <= most && Long.bitCount(inB & ~inA) <= most;
    }

    static int of(int[] a, int[] b) {
        int[][] rows = new int[a.length + 1][b.length + 1];
        for (int k = 0; k <= b.length; k++) {
            rows[0][k] = k;
        }
        for (int i = 1; i <= a.length; i++) {
            rows[i][0] = i;
            for (int k = 1; k <= b.length; k++) {
                int changed = rows[i - 1][k - 1] + (a[i - 1] == b[k - 1] ? 0 : 1);
                int best = Math.min(changed, Math.min(rows[i - 1][k], rows[i][k - 1]) + 1);
                boolean swapped = i > 1 && k > 1 && a[i - 1] == b[k - 2] && a[i - 2] == b[k - 1];
                rows[i][k] = swapped ? Math.min(best, rows[i - 2][k - 2] + 1) : best;
            }
        }
        return rows[a.length][b.length];
    }
}
