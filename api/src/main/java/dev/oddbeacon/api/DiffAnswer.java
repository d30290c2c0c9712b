package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/diff}: what differs between two revisions.
 *
 * @param from the commit before; empty for nothing
 * @param to the commit after
 * @param total files that differ; more than there are {@code files} if they are very many
 */
public record DiffAnswer(String repository, String from, String to, int total, List<File> files) {
    /**
     * @param hunks empty for a binary file, and where only the files were asked for
     */
    public record File(
            String path, String from, String change, boolean binary, int added, int removed, List<Hunk> hunks) {}

    public record Hunk(int oldStart, int oldLines, int newStart, int newLines, List<Line> lines) {}

    /** @param kind a space, {@code +} or {@code -} */
    public record Line(String kind, String text) {}
}
