package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.search.Stop;
import java.util.List;
import java.util.Optional;

/**
 * The answer to a search for lines.
 *
 * @param hits lines with a match, once for each repository, branch and path
 * @param files that were found, also those that show no line
 * @param exact whether the counts are; lower bounds otherwise
 * @param next where the next page starts
 */
public record LineAnswer(
        long hits,
        int files,
        int repositories,
        boolean exact,
        Optional<Stop> stopped,
        Facets facets,
        List<FileHits> page,
        Optional<Position> next,
        Explanation explanation) {

    /** Before the hit of that number, from 0, in the file at a place. */
    public record Position(long place, int hit) {
        public static final Position START = new Position(-1, 0);
    }

    /**
     * Hits in one file.
     *
     * @param hits all there are in the file; the excerpts may show fewer
     */
    public record FileHits(
            int branchNumber, int file, int hits, Optional<Relevance> relevance, List<Excerpt> excerpts) {}

    /**
     * How the answer came about.
     *
     * @param plan what the index was asked
     * @param lists lists of postings that were read
     * @param stages milliseconds by stage, in order
     */
    public record Explanation(
            String plan,
            int segments,
            int lists,
            long postingsBytes,
            int candidates,
            int filesVerified,
            long bytesVerified,
            List<Stage> stages) {}

    public record Stage(String name, double millis) {}
}
