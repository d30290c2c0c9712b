package dev.oddbeacon.core.text.regex;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * The members of classes such as {@code \p{Greek}}. The reference itself is asked, once for each class, by letting
 * it match a text of all code points: its tables are of another version of Unicode than the JDK's. Costs about a
 * tenth of a second the first time; the last few classes are kept.
 */
final class UnicodeClasses {
    private static final int KEPT = 64;
    private static final Map<String, CharSet> KNOWN = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, CharSet> eldest) {
            return size() > KEPT;
        }
    };

    private UnicodeClasses() {}

    /**
     * @param source the class as it is written, {@code \pL} or {@code [[:alpha:]]} for example
     * @throws com.google.re2j.PatternSyntaxException if there is no such class
     */
    static CharSet of(String source) {
        synchronized (KNOWN) {
            return KNOWN.computeIfAbsent(source + "+", UnicodeClasses::members);
        }
    }

    private static CharSet members(String regex) {
        Matcher matcher = Pattern.compile(regex).matcher(all());
        int[] ranges = new int[64];
        int length = 0;
        while (matcher.find()) {
            if (length == ranges.length) {
                ranges = java.util.Arrays.copyOf(ranges, length * 2);
            }
            ranges[length++] = codePointAt(matcher.start());
            ranges[length++] = codePointAt(matcher.end() - 1);
        }
        return new CharSet(java.util.Arrays.copyOf(ranges, length)).or(CharSet.NONE);
    }

    /** All code points but surrogates, which no text holds. */
    private static String all() {
        StringBuilder all = new StringBuilder(Character.MAX_CODE_POINT * 2);
        for (int c = 0; c <= Character.MAX_CODE_POINT; c++) {
            if (c < Character.MIN_SURROGATE || c > Character.MAX_SURROGATE) {
                all.appendCodePoint(c);
            }
        }
        return all.toString();
    }

    /** The code point that has a unit of that text. */
    private static int codePointAt(int unit) {
        int surrogates = Character.MAX_SURROGATE - Character.MIN_SURROGATE + 1;
        int basic = Character.MIN_SUPPLEMENTARY_CODE_POINT - surrogates; // units of the basic plane
        if (unit < Character.MIN_SURROGATE) {
            return unit;
        }
        return unit < basic ? unit + surrogates : Character.MIN_SUPPLEMENTARY_CODE_POINT + (unit - basic) / 2;
    }
}
