package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code POST /api/v1/status/verify}: all files of the index were compared with their checksums.
 *
 * @param damaged names of files that were not as they were written; they were taken out and are being rebuilt
 */
public record IndexCheck(int files, long bytes, List<String> damaged, double tookMillis) {}
