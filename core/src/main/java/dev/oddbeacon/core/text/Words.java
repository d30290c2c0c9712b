package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;

/** Characters that are part of a word: Unicode letters, marks, digits and the underscore. */
public final class Words {
    private Words() {}

    public static boolean isWordPart(int codePoint) {
        if (codePoint < 0x80) {
            return codePoint >= 'a' && codePoint <= 'z'
                    || codePoint >= 'A' && codePoint <= 'Z'
                    || codePoint >= '0' && codePoint <= '9'
                    || codePoint == '_';
        }
        return switch (Character.getType(codePoint)) {
            case Character.UPPERCASE_LETTER,
                    Character.LOWERCASE_LETTER,
                    Character.TITLECASE_LETTER,
                    Character.MODIFIER_LETTER,
                    Character.OTHER_LETTER,
                    Character.NON_SPACING_MARK,
                    Character.COMBINING_SPACING_MARK,
                    Character.ENCLOSING_MARK,
                    Character.DECIMAL_DIGIT_NUMBER -> true;
            default -> false;
        };
    }

    /**
     * Whether the bytes from start to end are not part of a longer word: at neither edge does a word part inside
     * touch a word part outside. {@code ->foo} in {@code a->foo;} is whole, {@code foo} in {@code foo2} is not.
     *
     * @param low the first byte of the text around the match, an absolute offset
     * @param high the end of the text around the match
     */
    public static boolean isWhole(MemorySegment text, long low, long start, long end, long high) {
        if (start == end) {
            return true;
        }
        boolean leftOpen =
                start > low && isWordPart(Utf8.before(text, start, low)) && isWordPart(Utf8.at(text, start, high));
        boolean rightOpen =
                end < high && isWordPart(Utf8.at(text, end, high)) && isWordPart(Utf8.before(text, end, low));
        return !leftOpen && !rightOpen;
    }

    /** Words of a range of a string. */
    public static boolean isWhole(CharSequence text, int start, int end) {
        if (start == end) {
            return true;
        }
        boolean leftOpen = start > 0
                && isWordPart(Character.codePointBefore(text, start))
                && isWordPart(Character.codePointAt(text, start));
        boolean rightOpen = end < text.length()
                && isWordPart(Character.codePointAt(text, end))
                && isWordPart(Character.codePointBefore(text, end));
        return !leftOpen && !rightOpen;
    }
}
