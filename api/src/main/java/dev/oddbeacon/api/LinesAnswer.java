package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/search/lines}.
 *
 * @param stopped {@code time}, {@code memory} or {@code cancelled} if the search ended before it had seen everything,
 * else null
 * @param next cursor of the next page, or null
 * @param explanation how the answer came about, if that was asked for, else null
 */
public record LinesAnswer(
        QueryEcho query,
        IndexState index,
        String stopped,
        Counts counts,
        Facets facets,
        List<FileHits> files,
        String next,
        double tookMillis,
        Explanation explanation) {

    /**
     * How the search was understood.
     *
     * @param reading {@code plain}, {@code regex} or {@code expression}
     * @param caseMode {@code auto}, {@code match} or {@code ignore}
     * @param expression the whole search, with its scope, as an expression
     * @param unfinished what is missing at the end, of an expression that was taken as far as it goes; else null
     */
    public record QueryEcho(
            String text,
            String reading,
            String caseMode,
            boolean word,
            String expression,
            Problem.Mistake unfinished) {}

    /**
     * What was searched.
     *
     * @param complete whether every repository of the scope is indexed, and none is waiting or being indexed
     * @param repositories in the scope
     * @param indexing of them waiting, being indexed, or failed before they could be searched
     * @param missingFiles files that the scope lists and no indexed branch has
     * @param parts what can be searched of those that are being read for the first time, of the first few
     */
    public record IndexState(
            boolean complete, int repositories, int indexing, int missingFiles, List<SearchedPart> parts) {}

    /**
     * A repository that is read for the first time, and of which a part can be searched.
     *
     * @param searchedBytes of the text of its files
     * @param bytes of all of it
     */
    public record SearchedPart(String repository, long searchedBytes, long bytes) {}

    /**
     * @param hits lines with a match; each counts once for each repository, branch and path
     * @param files that were found, also those of which no line is shown
     * @param exact whether the counts are; lower bounds otherwise
     */
    public record Counts(long hits, int files, int repositories, boolean exact) {}

    /**
     * Where the hits are, the most first.
     *
     * @param folder below the deepest folder that all files share; values as the parameter {@code under} takes them
     */
    public record Facets(
            List<Facet> repository, List<Facet> type, List<Facet> trait, List<Facet> folder, List<Spread> spread) {}

    /**
     * Files and hits in a folder of a repository.
     *
     * @param folder as {@code under} takes it; empty for files that lie in none
     */
    public record Spread(String repository, String folder, int files, long hits) {}

    public record Facet(String value, int files, long hits) {}

    /**
     * @param hits of the file in all; a page may show fewer
     * @param relevance why the file stands where it does, in the order of relevance; else null
     */
    public record FileHits(
            String repository,
            String branch,
            String commit,
            String path,
            String type,
            List<String> traits,
            int hits,
            Relevance relevance,
            List<Excerpt> excerpts) {}

    /** @param reasons in words, with the points of each */
    public record Relevance(int points, List<String> reasons) {}

    /**
     * @param plan what the index was asked
     * @param lists lists of postings that were read
     * @param candidates files that the index left over
     * @param stages in order
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

    /** @param enclosing the innermost declaration that its first hit stands in, qualified; null if there is none */
    public record Excerpt(List<Line> lines, Enclosing enclosing) {}

    /** @param line where it is declared */
    public record Enclosing(String name, String kind, String container, int line) {}

    /**
     * @param number from 1
     * @param text the line; of a line of more than 2,000 UTF-16 units the part around its matches
     * @param textStart where that part starts in the line
     * @param matches none for a context line
     * @param declares whether a match is the name of a declaration, or in one
     * @param regions what of the line is not code: start, end and 1 for a comment, 2 for a string, one after the other;
     * null unless asked for
     */
    public record Line(int number, String text, int textStart, List<Match> matches, boolean declares, int[] regions) {
        public Line(int number, String text, int textStart, List<Match> matches, boolean declares) {
            this(number, text, textStart, matches, declares, null);
        }
    }

    /** UTF-16 units in the line (in its text, after taking off textStart), from start to before end. */
    public record Match(int start, int end) {}
}
