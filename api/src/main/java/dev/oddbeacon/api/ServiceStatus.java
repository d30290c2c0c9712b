package dev.oddbeacon.api;

/**
 * The answer to {@code GET /api/v1/status}.
 *
 * @param records whether MariaDB can be reached
 * @param repositories that are registered
 * @param indexing of them waiting or being indexed
 * @param failed of them whose last job failed
 * @param lines of the files that are searched, all branches
 * @param indexBytes on disk
 * @param commits of which the index has what they changed
 * @param pastBytes of the index that tell of them
 */
public record ServiceStatus(
        String version,
        boolean records,
        int repositories,
        int indexing,
        int failed,
        int files,
        long lines,
        long bytes,
        long indexBytes,
        int segments,
        long commits,
        long pastBytes,
        long heapBytes) {}
