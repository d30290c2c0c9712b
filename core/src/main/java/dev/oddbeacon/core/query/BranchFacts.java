package dev.oddbeacon.core.query;

import java.util.Optional;
import java.util.Set;

/**
 * What conditions are told of a branch.
 *
 * @param labels of its repository
 * @param name empty if only the repository is asked about, whatever its branches
 */
public record BranchFacts(String repository, Set<String> labels, Optional<String> name) {}
