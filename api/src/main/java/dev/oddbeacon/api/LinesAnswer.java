package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/search/lines}.
 *
 * @param stopped {@code time} or {@code cancelled} if the search ended before it had seen everything, else null
 * @param next cursor of the next page, or null
 */
public record LinesAnswer(QueryEcho query, IndexState index, String stopped, Counts counts, Facets facets, List<FileHits> files,
        String next, double tookMillis) {

    /**
     * How the search was understood.
     *
     * @param reading {@code plain} or {@code regex}
     * @param caseMode {@code auto}, {@code match} or {@code ignore}
     */
    public record QueryEcho(String text, String reading, String caseMode, boolean word) {}

    /**
     * What was searched.
     *
     * @param complete whether every repository of the scope is indexed, and none is waiting or being indexed
     * @param repositories in the scope
     * @param indexing of them waiting, being indexed, or failed before they could be searched
     */
    public record IndexState(boolean complete, int repositories, int indexing) {}

    /**
     * @param hits lines with a match; each counts once for each repository, branch and path
     * @param exact whether the counts are; lower bounds otherwise
     */
    public record Counts(long hits, int files, int repositories, boolean exact) {}

    public record Facets(List<Facet> repository) {}

    public record Facet(String value, int files, long hits) {}

    /** @param hits of the file in all; a page may show fewer */
    public record FileHits(String repository, String branch, String commit, String path, String type, int hits, List<Excerpt> excerpts) {}

    public record Excerpt(List<Line> lines) {}

    /**
     * @param number from 1
     * @param text the line; of a line of more than 2,000 UTF-16 units the part around its matches
     * @param textStart where that part starts in the line
     * @param matches none for a context line
     */
    public record Line(int number, String text, int textStart, List<Match> matches) {}

    /** UTF-16 units in the line (in its text, after taking off textStart), from start to before end. */
    public record Match(int start, int end) {}
}
