package dev.oddbeacon.core.search;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The answer to a search for lines.
 *
 * @param hits lines with a match, once for each repository, branch and path
 * @param exact whether the counts are; lower bounds otherwise
 * @param byRank hits and files of each branch
 * @param next where the next page starts
 */
public record LineAnswer(long hits, int files, int repositories, boolean exact, Optional<Stop> stopped, Map<Integer, Share> byRank,
        List<FileHits> page, Optional<Position> next) {

    /** Why a search ended before it had seen everything. */
    public enum Stop {
        TIME, CANCELLED
    }

    /** @param hits of a branch, in so many files */
    public record Share(int files, long hits) {}

    /** Before the hit of that number, from 0, in the file at a place. */
    public record Position(long place, int hit) {
        public static final Position START = new Position(0, 0);
    }

    /**
     * Hits in one file.
     *
     * @param hits all there are in the file; the excerpts may show fewer
     */
    public record FileHits(int rank, int file, int hits, List<Excerpt> excerpts) {}

    /** Successive lines, at least one of them a hit. */
    public record Excerpt(List<Line> lines) {}

    /**
     * @param number from 1
     * @param text the line, or the part of a very long one around its matches
     * @param textStart where that part starts in the line, in UTF-16 units
     * @param matches in UTF-16 units of the line, not of the part
     */
    public record Line(int number, String text, int textStart, List<Span> matches) {
        public boolean isHit() {
            return !matches.isEmpty();
        }
    }

    /** From start to before end. */
    public record Span(int start, int end) {}
}
