package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * A registered repository.
 *
 * @param state {@code waiting}, {@code indexing}, {@code ready} or {@code failed}
 * @param problem why it failed, or what is odd about it; null if all is well
 * @param progress of indexing, or null
 * @param history what the index has of its past
 * @param disk what it takes
 * @param following what its origin said when it was asked last; null if it was never asked
 */
public record RepositoryInfo(
        String name,
        String title,
        String location,
        List<String> labels,
        String state,
        String problem,
        Progress progress,
        List<Branch> branches,
        History history,
        Following following,
        Disk disk) {

    /**
     * A branch, or a tag, as it is indexed.
     *
     * @param committed when the commit was made
     * @param indexed when it became searchable
     * @param lines of the files that are searched
     * @param bytes of all files
     * @param skipped files whose text is not searched
     * @param unreadBytes of files that are not searched yet, while it is read for the first time
     */
    public record Branch(
            String name,
            String commit,
            Instant committed,
            Instant indexed,
            int files,
            long lines,
            long bytes,
            int skipped,
            long unreadBytes) {}

    /**
     * What the index has of a repository's past.
     *
     * @param complete whether all that is wanted was read; until then searches for commits may miss some
     * @param oldest when its first commit was made; null if there is none
     * @param cut commits that have a parent which is not there: the repository is shallow, or only so many commits are
     * wanted
     * @param withoutLines commits of which the changed lines are not searched, because they are too many
     * @param problem why it cannot be read; null if all is well
     */
    public record History(boolean complete, int commits, Instant oldest, int cut, int withoutLines, String problem) {}

    /**
     * Whether the index is as the origin of a repository is.
     *
     * @param checked when its origin answered last; null if it never has
     * @param changed when it is known to have changed last
     * @param behind whether its origin has what is not indexed yet
     * @param commits by how many commits of its default branch it is behind, if that is known; null if not
     * @param problem why its origin does not answer; null if it does
     */
    public record Following(Instant checked, Instant changed, boolean behind, Integer commits, String problem) {}

    /**
     * What a repository takes on the disk of the service, beside its text in the index.
     *
     * @param mirrorBytes of what was fetched
     * @param pastBytes of what the index has of its past
     */
    public record Disk(long mirrorBytes, long pastBytes) {}

    /** @param total 0 if it is not known */
    public record Progress(String phase, long done, long total) {}
}
