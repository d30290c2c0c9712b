package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/tree}: what lies directly in a folder, folders first, by name.
 *
 * @param branch empty for a revision that is not indexed
 * @param path of the folder, from the root; empty for the root
 */
public record Tree(String repository, String branch, String commit, String path, List<Entry> entries) {

    /**
     * @param kind {@code folder}, {@code file}, {@code link} or {@code submodule}
     * @param type of a file; empty for a folder, and at a revision that is not indexed
     * @param bytes of a folder, those of all files below it; -1 if that is not known, at a revision that is not indexed
     * @param lines as bytes
     * @param files below a folder; -1 if that is not known; 1 for a file
     * @param skipped why the text of a file is not searched, or null
     * @param submodule where it leads; null if it is none
     */
    public record Entry(
            String name,
            String path,
            String kind,
            String type,
            List<String> traits,
            long bytes,
            long lines,
            int files,
            String skipped,
            Submodule submodule) {}
}
