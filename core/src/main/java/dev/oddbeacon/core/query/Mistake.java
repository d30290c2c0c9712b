package dev.oddbeacon.core.query;

import java.util.Optional;

/**
 * What is wrong with a search text.
 *
 * @param message what was found, and what was expected
 * @param position in UTF-16 units from 0, or {@link #NOWHERE}
 * @param length of the part that is wrong; 0 where something is missing
 * @param suggestion the whole text as it was perhaps meant
 * @param unfinished whether it may become right as more is typed
 */
public record Mistake(String message, int position, int length, Optional<String> suggestion, boolean unfinished) {
    /** Position of a mistake that stands at no place in the text. */
    public static final int NOWHERE = -1;
}
