package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/search/files}.
 *
 * @param next cursor of the next page, or null
 */
public record FilesAnswer(
        QueryEcho query,
        LinesAnswer.IndexState index,
        Counts counts,
        Facets facets,
        List<File> files,
        String next,
        double tookMillis) {

    /**
     * How the search was understood; the expression is that of its scope, and of the text unless it is fragments or a
     * glob.
     */
    public record QueryEcho(String text, String reading, String expression) {}

    public record Counts(int files, int repositories, boolean exact) {}

    /** Files counted by property, the most frequent first. */
    public record Facets(
            List<LinesAnswer.Facet> repository, List<LinesAnswer.Facet> type, List<LinesAnswer.Facet> trait) {}

    /**
     * @param kind {@code file} or {@code folder}; a folder has no type, traits, bytes, lines
     * @param changed when it was committed last; of its branch, where its past is not indexed
     * @param skipped why its text is not searched, or null
     * @param matches in path
     */
    public record File(
            String repository,
            String branch,
            String commit,
            String path,
            String kind,
            String type,
            List<String> traits,
            long bytes,
            int lines,
            Instant changed,
            String skipped,
            List<LinesAnswer.Match> matches) {}
}
