package dev.oddbeacon.api;

import java.util.List;

/** The answer to {@code GET /api/v1/search/files}. */
public record FilesAnswer(LinesAnswer.IndexState index, Counts counts, List<File> files, double tookMillis) {

    public record Counts(int files, int repositories, boolean exact) {}

    /**
     * @param skipped why its text is not searched, or null
     * @param matches in path
     */
    public record File(String repository, String branch, String commit, String path, String type, List<String> traits, long bytes, int lines, String skipped,
            List<LinesAnswer.Match> matches) {}
}
