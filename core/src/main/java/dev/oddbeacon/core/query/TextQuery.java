package dev.oddbeacon.core.query;

import java.util.Objects;

/**
 * What lines are to be found.
 *
 * @param word whether a match must not be part of a longer word
 */
public record TextQuery(String text, Reading reading, CaseMode caseMode, boolean word) {
    /** Longer texts are refused: nobody types them, and a mistaken paste should not cost a scan. */
    public static final int LONGEST = 10_000;

    public TextQuery {
        Objects.requireNonNull(reading);
        Objects.requireNonNull(caseMode);
        if (text.isEmpty()) {
            throw new InvalidQueryException("The search text is empty. Give at least one character to look for.", InvalidQueryException.NOWHERE);
        }
        if (text.length() > LONGEST) {
            throw new InvalidQueryException("The search text has " + text.length() + " characters; at most " + LONGEST
                    + " are taken. Search for a distinctive part of it.", LONGEST);
        }
        for (int i = 0; i < text.length(); i++) {
            boolean paired = Character.isHighSurrogate(text.charAt(i)) && i + 1 < text.length() && Character.isLowSurrogate(text.charAt(i + 1));
            if (paired) {
                i++;
            } else if (Character.isSurrogate(text.charAt(i))) {
                throw new InvalidQueryException("The search text has half a character (a lone surrogate) at position " + (i + 1)
                        + ". Type or paste it again.", i);
            }
        }
    }
}
