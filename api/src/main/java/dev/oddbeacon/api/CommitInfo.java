package dev.oddbeacon.api;

import java.time.OffsetDateTime;
import java.util.List;

/**
 * A commit. People are named as the repository's {@code .mailmap} says; dates carry the zone they were made in.
 *
 * @param id 40 hexadecimal digits
 * @param summary the first paragraph of the message, on one line
 */
public record CommitInfo(
        String repository,
        String id,
        Person author,
        OffsetDateTime authored,
        Person committer,
        OffsetDateTime committed,
        List<String> parents,
        String summary,
        String message) {
    public record Person(String name, String email) {}

    /**
     * A file that a commit changed, or that differs between two.
     *
     * @param change {@code added}, {@code modified}, {@code deleted} or {@code renamed}
     * @param from its path before; null unless it was renamed
     * @param added lines
     * @param removed lines
     * @param binary whether its lines were not compared
     */
    public record ChangedFile(String path, String change, String from, int added, int removed, boolean binary) {}
}
