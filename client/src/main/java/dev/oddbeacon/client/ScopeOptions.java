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

    @Option(names = "--type", paramLabel = "T", description = "Only files of such a type: java, yaml, ...; oddbeacon types lists them.")
    private List<String> types = new ArrayList<>();

    @Option(names = "--trait", paramLabel = "T",
            description = "Only files of such a trait: test, generated, vendored, translation, documentation, configuration, minified, binary.")
    private List<String> traits = new ArrayList<>();

    @Option(names = "--not-trait", paramLabel = "T", description = "No files of such a trait.")
    private List<String> notTraits = new ArrayList<>();

    @Option(names = "--except", paramLabel = "SET", description = "No files that such an exclusion set takes out; oddbeacon sets list shows them.")
    private List<String> except = new ArrayList<>();

    @Option(names = "--lift", paramLabel = "SET", description = "An exclusion set that applies by default, but not this time.")
    private List<String> lift = new ArrayList<>();

    void addTo(Service.Parameters parameters) {
        parameters.addAll("type", types).addAll("trait", traits).addAll("notTrait", notTraits).addAll("except", except).addAll("lift", lift);
        parameters.addAll("repo", repositories).addAll("label", labels).addAll("branch", branches).addAll("under", under).addAll("notUnder", notUnder);
    }
}
