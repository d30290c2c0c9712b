package dev.oddbeacon.core.query;

import java.util.Collection;
import java.util.Optional;

/**
 * What conditions are told of a branch.
 *
 * @param labels of its repository
 * @param name empty if only the repository is asked about, whatever its branches
 */
public record BranchFacts(String repository, Collection<String> labels, Optional<String> name) {}
