package dev.oddbeacon.api;

import java.time.Instant;

/**
 * What the service was like over some time. Of what varies, the worst within that time is told.
 *
 * @param at its end
 * @param seconds how long it was
 * @param searches that were answered, of all subjects
 * @param failedSearches of them that ended in an error of the service
 * @param medianMillis half of the searches were answered in this; null if there were none
 * @param slowMillis 95 of 100 searches were answered in this; null if there were none
 * @param waiting jobs
 * @param oldestSeconds how long the oldest of them has waited; 0 if none does
 * @param repositories that are registered
 * @param failed of them whose last job failed
 * @param behind of them whose origin has what is not indexed yet
 * @param freeBytes of the disk where the data folder is
 * @param heapBytes in use after memory was last cleared of garbage
 * @param heapLimitBytes that it may grow to
 * @param residentBytes of memory that the process has of its own, without mapped files; 0 where that is not known
 * @param mappings of files and memory; 0 where that is not known
 * @param handles of open files and connections; 0 where that is not known
 */
public record HealthReading(
        Instant at,
        int seconds,
        long searches,
        long failedSearches,
        Double medianMillis,
        Double slowMillis,
        int waiting,
        long oldestSeconds,
        int repositories,
        int failed,
        int behind,
        int segments,
        long indexBytes,
        long freeBytes,
        long heapBytes,
        long heapLimitBytes,
        long residentBytes,
        int mappings,
        int handles,
        int threads) {}
