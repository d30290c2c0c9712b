package dev.oddbeacon.api;

import java.util.List;

/** The answer to {@code GET /api/v1/repositories/{name}/skipped}: files whose text is not searched. */
public record SkippedFiles(String repository, String branch, String commit, List<File> files) {

    /** @param reason in words */
    public record File(String path, long bytes, String reason) {}
}
