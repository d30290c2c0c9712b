package dev.oddbeacon.client;

import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Option;

/** Where to look. One option given several times means or; different options mean and. */
final class ScopeOptions {
    @Option(names = "--repo", paramLabel = "GLOB", description = "Only repositories with such a name.")
    private List<String> repositories = new ArrayList<>();

    @Option(names = "--label", paramLabel = "GLOB", description = "Only repositories with such a label.")
    private List<String> labels = new ArrayList<>();

    @Option(names = "--branch", paramLabel = "GLOB", description = "Indexed branches or tags with such a name; without it each repository's default branch.")
    private List<String> branches = new ArrayList<>();

    @Option(names = "--under", paramLabel = "GLOB",
            description = "Only below such folders, or such files: with a slash from the repository's root, without one at any depth.")
    private List<String> under = new ArrayList<>();

    @Option(names = "--not-under", paramLabel = "GLOB", description = "Not below such folders, nor such files.")
    private List<String> notUnder = new ArrayList<>();

    void addTo(Service.Parameters parameters) {
        parameters.addAll("repo", repositories).addAll("label", labels).addAll("branch", branches).addAll("under", under).addAll("notUnder", notUnder);
    }
}
