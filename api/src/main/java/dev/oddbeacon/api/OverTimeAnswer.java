package dev.oddbeacon.api;

import java.time.LocalDate;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/search/lines/over-time}: when matching lines came in, and when they left.
 *
 * @param courses by repository, those that changed most first
 * @param commits that changed how many matching lines there are
 * @param first the earliest of them, or null
 * @param last the latest, or null
 * @param events the newest first
 */
public record OverTimeAnswer(
        String expression,
        LinesAnswer.IndexState index,
        CommitsAnswer.Covered covered,
        String stopped,
        List<OfRepository> courses,
        long commits,
        Event first,
        Event last,
        List<Event> events,
        String next,
        double tookMillis) {
    /**
     * @param now matching lines there are now
     * @param difference how many of them single commits do not explain: merges changed them, or the past is cut;
     * negative if there should be more
     */
    public record OfRepository(String repository, List<Point> points, long now, long difference) {}

    /** @param lines that match after that day */
    public record Point(LocalDate day, long lines) {}

    public record Event(CommitInfo commit, int added, int removed) {}
}
