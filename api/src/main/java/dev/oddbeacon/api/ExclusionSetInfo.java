package dev.oddbeacon.api;

import java.time.Instant;

/**
 * A named list of path patterns that takes files out of searches: {@code GET /api/v1/exclusion-sets}.
 *
 * @param own whether it is the caller's own, and nobody else's
 * @param repository that keeps it in a file, where alone it is changed; null of the others
 * @param byDefault whether every search leaves its files out, unless it lifts the set
 * @param patterns one a line, in the syntax of Git's ignore files
 * @param version of the set; who changes or removes it says which version they have seen
 */
public record ExclusionSetInfo(
        String name,
        boolean own,
        String repository,
        String description,
        boolean byDefault,
        String patterns,
        long version,
        Instant changed) {

    /**
     * The body of {@code PUT /api/v1/exclusion-sets/{name}}.
     *
     * @param version of the set that is changed; null to make a new one
     */
    public record Change(String description, Boolean byDefault, String patterns, Long version) {}
}
