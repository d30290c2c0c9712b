package dev.oddbeacon.api;

import java.util.List;

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
 * @param warnings what whoever runs the service should know, in words; none as a rule
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
        long heapBytes,
        List<String> warnings) {}
