package dev.oddbeacon.core.snapshot;

import java.time.Instant;
import java.util.Set;

/**
 * One branch (or tag) of one repository as the index knows it.
 *
 * @param labels of the repository
 * @param commit id of the commit that is indexed
 * @param isDefault whether it is searched when no branch is named
 */
public record Branch(
        String repository, Set<String> labels, String name, String commit, Instant committed, boolean isDefault) {}
