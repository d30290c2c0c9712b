package dev.oddbeacon.api;

import java.time.OffsetDateTime;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/blame}: where each line of a file comes from. All lines are in
 * one origin.
 */
public record BlameAnswer(String repository, String path, String revision, List<Origin> origins) {
    /**
     * Lines that follow each other and come from the same place.
     *
     * @param path of the file in that commit
     * @param line of the first of them there
     * @param previous the version before that commit; null if the file was not there
     */
    public record Origin(
            int fromLine,
            int toLine,
            String commit,
            CommitInfo.Person author,
            OffsetDateTime authored,
            String summary,
            String path,
            int line,
            Previous previous) {}

    public record Previous(String commit, String path) {}
}
