package dev.oddbeacon.api;

/**
 * What a saved search has found, of any subject: a line of {@code GET /api/v1/saved-searches/{name}/results}, which is
 * JSON lines.
 *
 * @param commit that the branch is at; of a commit its own id
 * @param branch null of a commit
 * @param path null of a commit
 * @param line from 1; null of a file and of a commit
 * @param name of a symbol; null of the others
 * @param text of the line, the part around the matches of a very long one; of a commit the first line of its message; null
 *     of a file
 */
public record Result(
        String repository, String branch, String commit, String path, Integer line, String name, String text) {}
