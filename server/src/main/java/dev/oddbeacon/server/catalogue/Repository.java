package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A registered repository as it was when its record was changed last. Immutable.
 *
 * @param id of its record
 * @param problem why it failed, or what is odd about it, in words
 * @param viewers who may see it, beside administrators: {@link #EVERYBODY}, {@link #team} or {@link #person}
 * @param wantedBranches names and patterns of those that are to be indexed; none for the one that HEAD stands for
 * @param roster that it came of
 * @param goneSince since when its roster does not list it any more
 * @param firstCommit that its history began with, if that was asked
 * @param branches the one that is searched by default first, then by name
 */
public record Repository(
        long id,
        String name,
        String title,
        String location,
        List<String> labels,
        Set<String> viewers,
        List<String> wantedBranches,
        Optional<String> roster,
        Optional<Instant> goneSince,
        State state,
        Optional<String> problem,
        Optional<String> firstCommit,
        List<IndexedBranch> branches,
        Past past,
        Disk disk) {

    /** Everybody, signed in or not. */
    public static final String ANYBODY = "anybody";

    /** Everybody who is signed in. */
    public static final String EVERYBODY = "everybody";

    /** Begins the owner of what a repository keeps in a file. */
    public static final String KEEPER = "repository:";

    /** How a team stands among the viewers. */
    public static String team(String name) {
        return "team:" + name;
    }

    /** How a person stands among the viewers. */
    public static String person(String account) {
        return "person:" + account;
    }

    /** As which viewers somebody with an account sees a repository. @param teams by name */
    public static List<String> viewersOf(String account, Collection<String> teams) {
        List<String> viewers = new ArrayList<>(List.of(ANYBODY, EVERYBODY));
        teams.forEach(team -> viewers.add(team(team)));
        viewers.add(person(account));
        return viewers;
    }

    /** What is being done with it. @param total 0 if it is not known */
    public record Progress(String phase, long done, long total) {}

    /** A branch or tag as it is indexed. @param unread bytes of files that are not searched yet */
    public record IndexedBranch(
            String name,
            String commit,
            Instant committed,
            Instant indexed,
            int files,
            long lines,
            long bytes,
            int skipped,
            long unread) {}

    /**
     * What the index has of its past.
     *
     * @param complete whether all that is wanted was read
     * @param oldest when its first commit was made
     * @param cut commits that have a parent which is missing
     * @param withoutLines commits of which the changed lines are left out
     */
    public record Past(
            boolean complete,
            int commits,
            Optional<Instant> oldest,
            int cut,
            int withoutLines,
            Optional<String> problem) {}

    /** What it takes on the disk beside its text in the index. @param mirror bytes @param past bytes */
    public record Disk(long mirror, long past) {}

    /** @param jobs of the repository, which say whether it waits or is being indexed */
    static Repository of(RepositoryRecord record, List<JobRecord> jobs) {
        State state = jobs.stream().anyMatch(JobRecord::running)
                ? State.INDEXING
                : jobs.isEmpty() ? record.state() : State.WAITING;
        List<IndexedBranch> branches = record.branches().stream()
                .sorted(Comparator.comparing((BranchRecord branch) -> !branch.searchedByDefault())
                        .thenComparing(BranchRecord::name))
                .map(branch -> new IndexedBranch(
                        branch.name(),
                        branch.commitId(),
                        branch.committed(),
                        branch.indexed(),
                        branch.files(),
                        branch.lineCount(),
                        branch.byteCount(),
                        branch.skipped(),
                        branch.unreadBytes()))
                .toList();
        var history = record.history();
        return new Repository(
                record.id(),
                record.name(),
                record.title(),
                record.location(),
                List.copyOf(record.labels()),
                Set.copyOf(record.viewers()),
                List.copyOf(record.wantedBranches()),
                record.roster(),
                record.goneSince(),
                state,
                jobs.isEmpty() ? record.problem() : Optional.empty(),
                record.firstCommit(),
                branches,
                new Past(
                        history.complete(),
                        history.commits(),
                        history.oldest(),
                        history.cut(),
                        history.withoutLines(),
                        history.problem()),
                new Disk(record.mirrorBytes(), record.pastBytes()));
    }

    /** Whether a job is waiting for it or at work on it. */
    public boolean isBusy() {
        return state == State.WAITING || state == State.INDEXING;
    }

    /** Whether a search may miss some of it, because it is not indexed, or not as it is now. */
    public boolean isIncomplete() {
        return isBusy() || state == State.FAILED && (branches.isEmpty() || isInParts());
    }

    /** Whether some of its text is not searched yet, while it is read for the first time. */
    public boolean isInParts() {
        return branches.stream().anyMatch(branch -> branch.unread() > 0);
    }

    /** Whether it came of a roster. @param name of the roster */
    public boolean cameOf(String name) {
        return roster.equals(Optional.of(name));
    }
}
