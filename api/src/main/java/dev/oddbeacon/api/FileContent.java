package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/file}.
 *
 * @param traits as the index knows them; none of revisions that are not indexed
 * @param encoding as the file was written, by its IANA name; null if it is skipped
 * @param skipped why its text is not searched and not shown, or null
 * @param image whether browsers can show it
 * @param text with LF for CRLF; null if it is skipped
 * @param submodule where it leads; null if it is none
 */
public record FileContent(
        String repository,
        String branch,
        String commit,
        String path,
        String type,
        List<String> traits,
        long bytes,
        int lines,
        String encoding,
        String skipped,
        boolean image,
        String text,
        Submodule submodule) {}
