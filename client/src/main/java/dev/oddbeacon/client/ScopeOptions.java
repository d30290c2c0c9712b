package dev.oddbeacon.client;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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

    @Option(names = "--files-from", paramLabel = "FILE|-", description = "Only the files that FILE, or standard input, lists: repository/path, or with --here local paths, a line each, or with zero bytes between.")
    private String filesFrom;

    @Option(names = "--here", description = "Only in the folder one stands in, of the repository whose Git work tree it is; results as local paths.")
    private boolean here;

    @Option(names = "--changed", paramLabel = "DAY", description = "Only files whose last change was on that day or later: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago.")
    private List<String> changedAfter = new ArrayList<>();

    @Option(names = "--changed-before", paramLabel = "DAY", description = "Only files whose last change was before that day.")
    private List<String> changedBefore = new ArrayList<>();

    @Option(names = "--region", paramLabel = "code|comment|string", description = "Only text that stands wholly in such a part of a file.")
    private List<String> regions = new ArrayList<>();

    @Option(names = "--not-region", paramLabel = "code|comment|string", description = "No text that stands in such a part of a file.")
    private List<String> notRegions = new ArrayList<>();

    private WorkTree workTree;
    private List<String> listed;

    /** How results are called. */
    Names names(Service service) {
        return new Names(workTree(service));
    }

    private Optional<WorkTree> workTree(Service service) {
        if (here && workTree == null) {
            if (!repositories.isEmpty()) {
                throw new ServiceProblem("--here names the repository by itself. Leave --repo out, or --here.", ClientMain.WRONG);
            }
            workTree = WorkTree.here(service);
        }
        return Optional.ofNullable(workTree);
    }

    /** The options again, as one line of words. */
    String asTyped() {
        StringBuilder line = new StringBuilder(here ? "--here" : "");
        Map<String, List<String>> given = new LinkedHashMap<>();
        given.put("--repo", repositories);
        given.put("--label", labels);
        given.put("--branch", branches);
        given.put("--under", under);
        given.put("--not-under", notUnder);
        given.put("--type", types);
        given.put("--trait", traits);
        given.put("--not-trait", notTraits);
        given.put("--except", except);
        given.put("--lift", lift);
        given.put("--changed", changedAfter);
        given.put("--changed-before", changedBefore);
        given.put("--region", regions);
        given.put("--not-region", notRegions);
        given.put("--files-from", filesFrom == null ? List.of() : List.of(filesFrom));
        given.forEach((option, values) -> values.forEach(value -> line.append(line.isEmpty() ? "" : " ").append(option).append(' ').append(value.contains(" ") ? '"' + value + '"' : value)));
        return line.toString();
    }

    void addTo(Service.Parameters parameters, Service service) {
        Optional<WorkTree> tree = workTree(service);
        if (listed == null) {
            listed = filesFrom == null ? List.of() : ListedFiles.read(filesFrom, tree);
        }
        parameters.addAll("file", listed);
        if (tree.isPresent()) {
            parameters.add("repo", tree.get().repository());
            parameters.addAll("branch", branches.isEmpty() && !tree.get().branch().isEmpty() ? List.of(escaped(tree.get().branch())) : branches);
            String prefix = tree.get().prefix();
            parameters.addAll("under", under.isEmpty() && !prefix.isEmpty() && filesFrom == null ? List.of("/" + escaped(prefix)) : within(prefix, under)).addAll("notUnder", within(prefix, notUnder));
        } else {
            parameters.addAll("repo", repositories).addAll("branch", branches).addAll("under", under).addAll("notUnder", notUnder);
        }
        parameters.addAll("label", labels).addAll("type", types).addAll("trait", traits).addAll("notTrait", notTraits).addAll("except", except).addAll("lift", lift).addAll("changedAfter", changedAfter).addAll("changedBefore", changedBefore).addAll("region", regions).addAll("notRegion", notRegions);
    }

    /** Globs as they are written in a folder, from the root of its repository. */
    private static List<String> within(String prefix, List<String> globs) {
        return globs.stream().map(glob -> prefix.isEmpty() ? glob : "/" + escaped(prefix) + (glob.replaceAll("/$", "").contains("/") ? glob.replaceAll("^\\.?/", "") : "**/" + glob)).toList();
    }

    /** Text as a glob for itself. */
    private static String escaped(String text) {
        return text.replaceAll("[\\[*?]", "[$0]");
    }
}
