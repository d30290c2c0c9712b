package dev.oddbeacon.api;

import java.util.List;

/**
 * An error, as RFC 9457 has it.
 *
 * @param detail what is wrong and what to do
 * @param position of the first mistake in the search text, in UTF-16 units from 0; null if that is not known
 * @param mistakes in the search text, in their order; null if it is not the text that is wrong
 */
public record Problem(
        String type,
        String title,
        int status,
        String detail,
        String instance,
        Integer position,
        List<Mistake> mistakes) {

    /**
     * @param message what was found, what was expected, and what to do
     * @param position in UTF-16 units from 0
     * @param length of the part that is wrong; 0 where something is missing
     * @param suggestion the whole text as it was perhaps meant, or null
     * @param unfinished whether it may become right as more is typed
     */
    public record Mistake(String message, int position, int length, String suggestion, boolean unfinished) {}
}
