package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.search.Stop;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;

/**
 * The answer to a search for lines.
 *
 * @param next where the next page starts
 */
public record LineAnswer(LineCounts counts, List<FileHits> page, Optional<Position> next, Explanation explanation) {

    /** The same page, with what was counted apart from it. It is stopped if either is. */
    public LineAnswer with(LineCounts others) {
        LineCounts both = new LineCounts(
                others.hits(), others.files(), others.exact(), others.stopped().or(this::stopped), others.facets());
        return new LineAnswer(both, page, next, explanation);
    }

    /** The places of the files that were found first: those of the page, and the one that the next page starts with. */
    public LongStream first() {
        return LongStream.concat(
                        page.stream().mapToLong(file -> (long) file.branchNumber() << 32 | file.file()),
                        next.stream().mapToLong(Position::place))
                .distinct();
    }

    /** Lines with a match, once for each repository, branch and path. */
    public long hits() {
        return counts.hits();
    }

    /** Files that were found, also those that show no line. */
    public int files() {
        return counts.files();
    }

    public int repositories() {
        return counts.repositories();
    }

    /** Whether the counts are; lower bounds otherwise. */
    public boolean exact() {
        return counts.exact();
    }

    public Optional<Stop> stopped() {
        return counts.stopped();
    }

    public Facets facets() {
        return counts.facets().facets();
    }

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
