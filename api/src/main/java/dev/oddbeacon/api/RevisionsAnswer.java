package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/revisions}: branches and tags, the latest first.
 *
 * @param total how many fit
 */
public record RevisionsAnswer(String repository, int total, List<Revision> revisions) {
    /**
     * @param kind {@code branch} or {@code tag}
     * @param indexed whether it can be searched
     * @param summary of its commit
     */
    public record Revision(
            String name,
            String kind,
            String commit,
            Instant committed,
            String author,
            String summary,
            boolean indexed) {}
}
