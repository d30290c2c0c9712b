package dev.oddbeacon.api;

import java.util.List;

/**
 * What following a roster would do now.
 *
 * @param problem what is odd about the list as a whole; null if all is well
 */
public record RosterPreview(List<Entry> entries, String problem) {
    /**
     * A repository of the list, or one that came of it.
     *
     * @param standing {@code new}, {@code changed}, {@code same}, {@code leaving} or {@code left-out}
     * @param problem why it is left out, or why it leaves; null otherwise
     */
    public record Entry(
            String name,
            String title,
            String location,
            List<String> labels,
            List<String> branches,
            List<String> visibleTo,
            String standing,
            String problem) {}
}
