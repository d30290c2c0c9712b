package dev.oddbeacon.core.search;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
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
public record LineAnswer(long hits, int files, int repositories, boolean exact, Optional<Stop> stopped, Facets facets, List<FileHits> page,
        Optional<Position> next, Explanation explanation) {

    /** Why a search ended before it had seen everything. */
    public enum Stop {
        TIME, MEMORY, CANCELLED
    }

    /** Files and hits by what they have in common, the most hits first. */
    public record Facets(List<Share> repository, List<Share> type, List<Share> trait, List<Share> folder, List<Spread> spread) {}

    /** Files and hits in a folder of a repository. @param folder as {@code under} takes it; empty for files that lie in none */
    public record Spread(String repository, String folder, int files, long hits) {}

    /** @param value a repository, a type, a trait, or a folder as {@code under} takes it */
    public record Share(String value, int files, long hits) {}

    /** Before the hit of that number, from 0, in the file at a place. */
    public record Position(long place, int hit) {
        public static final Position START = new Position(-1, 0);
    }

    /**
     * Hits in one file.
     *
     * @param hits all there are in the file; the excerpts may show fewer
     */
    public record FileHits(int rank, int file, int hits, Optional<Relevance> relevance, List<Excerpt> excerpts) {}

    /** Successive lines, at least one of them a hit. */
    public record Excerpt(List<Line> lines, Optional<Enclosing> enclosing) {}

    /**
     * The innermost declaration that the first hit of an excerpt stands in.
     *
     * @param line where it is declared
     */
    public record Enclosing(String name, Kind kind, String container, int line) {}

    /**
     * @param number from 1
     * @param text the line, or the part of a very long one around its matches
     * @param textStart where that part starts in the line, in UTF-16 units
     * @param matches in UTF-16 units of the line, not of the part
     * @param declares whether a match is in the name of a declaration, or holds one
     * @param regions what of the line is not code, in UTF-16 units, if that is wanted; nothing is told of very long lines
     */
    public record Line(int number, String text, int textStart, List<Span> matches, boolean declares, List<InRegion> regions) {
        public boolean isHit() {
            return !matches.isEmpty();
        }
    }

    /** A comment or a string, or what a line has of it. From start to before end. */
    public record InRegion(int start, int end, Region region) {}

    /** From start to before end. */
    public record Span(int start, int end) {}

    /**
     * How the answer came about.
     *
     * @param plan what the index was asked
     * @param lists lists of postings that were read
     * @param stages milliseconds by stage, in order
     */
    public record Explanation(String plan, int segments, int lists, long postingsBytes, int candidates, int filesVerified, long bytesVerified,
            List<Stage> stages) {}

    public record Stage(String name, double millis) {}
}
