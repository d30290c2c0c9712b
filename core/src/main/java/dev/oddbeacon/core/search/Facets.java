package dev.oddbeacon.core.search;

import java.util.List;

/** Files and hits by what they have in common, the most hits first. */
public record Facets(
        List<Share> repository, List<Share> type, List<Share> trait, List<Share> folder, List<Spread> spread) {
    /** @param value a repository, a type, a trait, or a folder as {@code under} takes it */
    public record Share(String value, int files, long hits) {}

    /**
     * Files and hits in a folder of a repository.
     *
     * @param folder as {@code under} takes it; empty for files at the root
     */
    public record Spread(String repository, String folder, int files, long hits) {}
}
