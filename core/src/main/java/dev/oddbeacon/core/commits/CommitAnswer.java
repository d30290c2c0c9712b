package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Stop;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/**
 * The answer to a search for commits.
 *
 * @param exact whether the counts are; lower bounds otherwise
 * @param next how many commits to pass over for the next page
 */
public record CommitAnswer(
        long commits,
        int repositories,
        boolean exact,
        Optional<Stop> stopped,
        Facets facets,
        List<Found> page,
        Optional<Integer> next) {
    /** Commits by author, repository, and the year they were committed in; {@link Share#files} is how many. */
    public record Facets(List<Share> person, List<Share> repository, List<Share> year, Timeline timeline) {}

    /**
     * Commits over time.
     *
     * @param unit of each bar
     * @param bars ascending, those without commits left out
     */
    public record Timeline(Unit unit, List<Bar> bars) {}

    public enum Unit {
        DAY,
        WEEK,
        MONTH,
        YEAR
    }

    /** @param from the first day, in UTC */
    public record Bar(LocalDate from, int commits) {}

    /**
     * A commit.
     *
     * @param commit with people as the repository's mailmap names them
     * @param matches in the message, in UTF-16 units
     * @param files that it changed, at most {@link CommitSearch#MOST_FILES}; none of a merge
     * @param fileCount how many there are
     * @param lines that matched, at most {@link CommitSearch#MOST_LINES}
     * @param whole whether its changed lines can be searched; not of a commit that changes too many
     */
    public record Found(
            String repository,
            Commit commit,
            List<Span> matches,
            List<File> files,
            int fileCount,
            List<ChangedLine> lines,
            boolean whole) {}

    /** @param from its path before, the same unless it was renamed */
    public record File(String path, String from, PathChange.Kind kind, int added, int removed, boolean binary) {}

    /** @param added whether it came, or went */
    public record ChangedLine(String path, boolean added, Excerpt.Line line) {}
}
