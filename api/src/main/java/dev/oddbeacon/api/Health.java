package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/health}: how the service is, for whoever runs it.
 *
 * @param started when the service was started last
 * @param findings what somebody should do something about or know, the most pressing first; none if all is well
 * @param failures repositories that fail, by reason, the most frequent first
 * @param processes that work on the index, the one that answers among them
 * @param now what was read just now; its searches are those since the reading before
 * @param past readings over the time that was asked for, the oldest first; times without a service are missing
 */
public record Health(
        Instant started,
        List<Finding> findings,
        List<Failure> failures,
        List<Worker> processes,
        HealthReading now,
        List<HealthReading> past) {
    /**
     * Something that is not as it should be.
     *
     * @param level {@code act} if people notice it or soon will, {@code watch} if they do not yet
     * @param about the kind, one word, as in docs/health.md
     * @param what is the case
     * @param advice what to do about it
     */
    public record Finding(String level, String about, String what, String advice) {}

    /**
     * A process that works on the index.
     *
     * @param duties {@code serving}, {@code indexing}
     * @param host where it runs
     * @param pid its number there
     * @param heapBytes in use, garbage included
     * @param heapLimitBytes that it may grow to
     */
    public record Worker(
            List<String> duties, String host, long pid, Instant started, long heapBytes, long heapLimitBytes) {}

    /**
     * Repositories that fail for the same reason.
     *
     * @param reason in words, "…" in the place of a location
     * @param count of repositories
     * @param repositories names of the first few
     */
    public record Failure(String reason, int count, List<String> repositories) {}
}
