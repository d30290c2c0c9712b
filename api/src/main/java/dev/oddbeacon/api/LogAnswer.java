package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/log}: the commits that changed a file, a folder or anything, the
 * newest first.
 *
 * @param path empty for the whole repository
 * @param revision the commit it looks back from
 * @param next cursor of the next page, or null
 */
public record LogAnswer(String repository, String path, String revision, List<Entry> entries, String next) {
    /**
     * @param path of the file in this commit
     * @param from its path before; null unless it was renamed
     * @param change null for a folder, and for a merge
     */
    public record Entry(CommitInfo commit, String path, String from, String change, int added, int removed) {}
}
