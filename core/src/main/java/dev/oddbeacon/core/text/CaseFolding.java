package dev.oddbeacon.core.text;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Unicode simple case folding: two code points are the same letter when they fold to the same code point.
 *
 * <p>The JDK has no table of case foldings, but its simple upper and lower case mappings give the same classes:
 * lower(upper(c)) is equal for exactly the code points that CaseFolding.txt joins by status C or S. The two
 * dotted and dotless i of Turkish are the exception; they have no simple folding and stay as they are. So
 * {@code fold('K') == fold('k') == fold(KELVIN SIGN) == 'k'}, and a letter's members may differ in UTF-8 length.
 */
public final class CaseFolding {
    private static final int CAPITAL_I_WITH_DOT = 0x130;
    private static final int SMALL_DOTLESS_I = 0x131;

    /** The highest letter that has another case. */
    private static final int CASED_END = 0x20000;

    private static final Map<Integer, int[]> OTHERS = otherMembers();
    /** All code points that have other cases, ascending. */
    private static final int[] CASED = OTHERS.entrySet().stream()
            .flatMapToInt(entry -> IntStream.concat(IntStream.of(entry.getKey()), Arrays.stream(entry.getValue())))
            .sorted()
            .toArray();

    private CaseFolding() {}

    /** The code point that stands for all that differ from {@code codePoint} in case only. */
    public static int fold(int codePoint) {
        if (codePoint < 0x80) {
            return codePoint >= 'A' && codePoint <= 'Z' ? codePoint + 0x20 : codePoint;
        }
        if (codePoint == CAPITAL_I_WITH_DOT || codePoint == SMALL_DOTLESS_I) {
            return codePoint;
        }
        return Character.toLowerCase(Character.toUpperCase(codePoint));
    }

    /** All code points of a text, folded. */
    public static int[] fold(String text) {
        return text.codePoints().map(CaseFolding::fold).toArray();
    }

    /** The UTF-8 bytes of a text with every code point folded; what the n-grams of the index are taken from. */
    public static byte[] foldedUtf8(String text) {
        int[] folded = fold(text);
        return new String(folded, 0, folded.length).getBytes(StandardCharsets.UTF_8);
    }

    /** The other code points that fold to a folded one: of k, the capital and the KELVIN SIGN. Mostly none. */
    static int[] others(int folded) {
        return OTHERS.getOrDefault(folded, new int[0]);
    }

    /** The code points that differ from one in case only. */
    public static IntStream caseVariants(int codePoint) {
        int folded = fold(codePoint);
        return IntStream.concat(IntStream.of(folded), Arrays.stream(others(folded)))
                .filter(other -> other != codePoint);
    }

    /** Folds all code points from low to high. */
    public static int[] caseVariantsOf(int low, int high) {
        int from = Arrays.binarySearch(CASED, low);
        int until = Arrays.binarySearch(CASED, high);
        return Arrays.stream(CASED, from < 0 ? -from - 1 : from, until < 0 ? -until - 1 : until + 1)
                .flatMap(CaseFolding::caseVariants)
                .toArray();
    }

    private static Map<Integer, int[]> otherMembers() {
        Map<Integer, int[]> others = new HashMap<>();
        for (int codePoint = 0; codePoint < CASED_END; codePoint++) {
            int folded = fold(codePoint);
            if (folded != codePoint) {
                others.merge(
                        folded,
                        new int[] {codePoint},
                        (a, b) -> IntStream.concat(Arrays.stream(a), Arrays.stream(b))
                                .toArray());
            }
        }
        return others;
    }
}
