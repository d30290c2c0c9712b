package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * A registered repository.
 *
 * @param state {@code waiting}, {@code indexing}, {@code ready} or {@code failed}
 * @param problem why it failed, or what is odd about it; null if all is well
 * @param progress of indexing, or null
 */
public record RepositoryInfo(String name, String title, String location, List<String> labels, String state, String problem,
        Progress progress, List<Branch> branches) {

    /**
     * A branch, or a tag, as it is indexed.
     *
     * @param committed when the commit was made
     * @param indexed when it became searchable
     * @param lines of the files that are searched
     * @param bytes of all files
     * @param skipped files whose text is not searched
     */
    public record Branch(String name, String commit, Instant committed, Instant indexed, int files, long lines, long bytes, int skipped) {}

    /** @param total 0 if it is not known */
    public record Progress(String phase, long done, long total) {}
}
