package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code POST /api/v1/places}: the places that a text names, in its order.
 *
 * @param matched places of which the index has a file
 * @param more whether the text names more than are told
 */
public record PlacesAnswer(List<Place> places, int matched, boolean more, double tookMillis) {

    /**
     * @param textLine the line of the text, from 1, on which the place is named
     * @param start where on that line the name of the place begins, in UTF-16 units
     * @param end one past its end
     * @param text that line, or its beginning if it is very long
     * @param named the path as the text has it
     * @param line from 1, as the text has it
     * @param column from 1; 0 if the text names none
     * @param files those that may be meant, the likeliest first; empty if the index has none
     * @param guess whether only the name of the file agrees, not the folders that the text names
     */
    public record Place(
            int textLine,
            int start,
            int end,
            String text,
            String named,
            int line,
            int column,
            List<File> files,
            boolean guess) {}

    /** @param lines how many the file has; if fewer than the place says, it has changed since */
    public record File(String repository, String branch, String commit, String path, int lines) {}
}
