package dev.oddbeacon.api;

import java.time.LocalDate;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/search/commits}: commits, the newest first.
 *
 * @param index {@code indexing} counts repositories whose past is not read to its end as well
 * @param covered what of the past was searched
 * @param stopped {@code time} or {@code cancelled} if the search ended before it had seen everything, else null
 * @param next cursor of the next page, or null
 */
public record CommitsAnswer(
        QueryEcho query,
        LinesAnswer.IndexState index,
        Covered covered,
        String stopped,
        Counts counts,
        Facets facets,
        List<Commit> commits,
        String next,
        double tookMillis) {
    /** @param expression the whole search, with its scope, as an expression */
    public record QueryEcho(String text, String reading, String expression) {}

    /**
     * @param commits that the index has of the repositories in the scope
     * @param cut commits whose parents are not there: shallow repositories, or only so many commits are wanted
     * @param withoutLines commits of which the changed lines are not searched, because they are too many
     */
    public record Covered(long commits, int cut, int withoutLines) {}

    public record Counts(long commits, int repositories, boolean exact) {}

    /** Commits by author, repository and year. */
    public record Facets(List<Facet> person, List<Facet> repository, List<Facet> year, Timeline timeline) {}

    public record Facet(String value, long commits) {}

    /** @param unit {@code day}, {@code week}, {@code month} or {@code year} */
    public record Timeline(String unit, List<Bar> bars) {}

    /** @param from the first day of the unit, in UTC */
    public record Bar(LocalDate from, int commits) {}

    /**
     * @param matches in the message
     * @param files that it changed, at most 50; none of a merge
     * @param fileCount how many there are
     * @param lines that matched what it adds or removes, at most 12
     */
    public record Commit(
            CommitInfo commit,
            List<LinesAnswer.Match> matches,
            List<CommitInfo.ChangedFile> files,
            int fileCount,
            List<Line> lines) {}

    /** @param kind {@code +} for a line that came, {@code -} for one that went */
    public record Line(
            String path, String kind, int number, String text, int textStart, List<LinesAnswer.Match> matches) {}
}
