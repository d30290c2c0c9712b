package dev.oddbeacon.client.options;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.WorkTree;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.IGetter;
import picocli.CommandLine.Model.ISetter;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Options that say where to look. One option given several times means or; different options mean and. */
public final class ScopeOptions {
    @Option(
            names = "--here",
            description =
                    "Only in the current folder, of the repository whose Git work tree it is; results as local paths.")
    private boolean here;

    @Option(
            names = "--scope",
            paramLabel = "SEARCH",
            description = "The scope of this saved search; an option given here stands instead of its part.")
    private String saved;

    private final Map<ScopePart, List<String>> given = new EnumMap<>(ScopePart.class);
    /** The values of one part, for the parser of arguments. */
    private final class Values implements IGetter, ISetter {
        private final ScopePart part;

        Values(ScopePart part) {
            this.part = part;
        }

        @Override
        @SuppressWarnings({"unchecked", "TypeParameterUnusedInFormals"}) // the parser wants any type
        public <T> T get() {
            return (T) given.get(part);
        }

        @Override
        @SuppressWarnings("unchecked") // a list of texts, as the option says
        public <T> T set(T value) {
            return (T) given.put(part, (List<String>) value);
        }
    }

    private WorkTree workTree;
    private List<String> listed;

    /** The options of the parts of a scope, as their table has them. */
    @Spec(Spec.Target.MIXEE)
    void addOptions(CommandSpec command) {
        for (ScopePart part : ScopePart.values()) {
            command.addOption(OptionSpec.builder(part.option())
                    .paramLabel(part.placeholder())
                    .description(part.help())
                    .type(List.class)
                    .auxiliaryTypes(String.class)
                    .getter(new Values(part))
                    .setter(new Values(part))
                    .build());
        }
    }

    /** The noun for results in messages. */
    public Names names(Service service) {
        return new Names(workTree(service));
    }

    /** The work tree of --here; empty without it. */
    public Optional<WorkTree> workTree(Service service) {
        if (here && workTree == null) {
            if (!values(ScopePart.REPO).isEmpty()) {
                throw new ServiceProblem(
                        "--here names the repository by itself. Leave --repo out, or --here.", ExitStatus.WRONG);
            }
            workTree = WorkTree.here(service);
        }
        return Optional.ofNullable(workTree);
    }

    private List<String> values(ScopePart part) {
        return Objects.requireNonNullElse(given.get(part), List.of());
    }

    /** The options again, as one line of words. */
    public String asTyped() {
        StringBuilder line = new StringBuilder(here ? "--here" : saved != null ? "--scope " + saved : "");
        for (ScopePart part : ScopePart.values()) {
            for (String value : values(part)) {
                line.append(line.isEmpty() ? "" : " ")
                        .append(part.option())
                        .append(' ')
                        .append(value.contains(" ") ? '"' + value + '"' : value);
            }
        }
        return line.toString();
    }

    /**
     * The parts of a scope that the current folder stands for as {@code --here}, if it has them as they are; else none.
     *
     * @param scope by the names of its parts, as the service tells it
     */
    public Optional<Set<ScopePart>> here(Map<String, List<String>> scope) {
        if (workTree == null) {
            return Optional.empty();
        }
        Set<ScopePart> stoodFor = EnumSet.noneOf(ScopePart.class);
        for (ScopePart part : List.of(ScopePart.REPO, ScopePart.BRANCH, ScopePart.UNDER)) {
            List<String> implied = inWorkTree(part, List.of(), workTree);
            if (!implied.isEmpty() && !implied.equals(scope.getOrDefault(part.parameter(), List.of()))) {
                return Optional.empty();
            }
            if (!implied.isEmpty()) {
                stoodFor.add(part);
            }
        }
        return Optional.of(stoodFor);
    }

    /** Takes the parts of the saved scope that no option was given for. */
    private void takeSaved(Service service) {
        if (saved == null) {
            return;
        }
        if (here) {
            throw new ServiceProblem("--here is a scope by itself. Leave --scope out, or --here.", ExitStatus.WRONG);
        }
        Map<String, List<String>> kept = service.get(
                        Service.path("saved-searches", saved), new Service.Parameters(), SavedSearch.class)
                .parameters();
        for (ScopePart part : ScopePart.values()) {
            Optional.ofNullable(kept.get(part.parameter())).ifPresent(values -> given.putIfAbsent(part, values));
        }
        saved = null;
    }

    public void addTo(Service.Parameters parameters, Service service) {
        takeSaved(service);
        Optional<WorkTree> tree = workTree(service);
        if (listed == null) {
            listed = values(ScopePart.FILE).stream()
                    .flatMap(list -> ListedFiles.read(list, tree).stream())
                    .toList();
        }
        for (ScopePart part : ScopePart.values()) {
            List<String> values = part == ScopePart.FILE ? listed : values(part);
            parameters.addAll(part.parameter(), tree.isPresent() ? inWorkTree(part, values, tree.get()) : values);
        }
    }

    /** The values of a part, from the root of the repository, where one stands in a folder of its work tree. */
    private List<String> inWorkTree(ScopePart part, List<String> values, WorkTree tree) {
        String prefix = tree.prefix();
        return switch (part) {
            case REPO -> List.of(tree.repository());
            case BRANCH -> values.isEmpty() && !tree.branch().isEmpty() ? List.of(escaped(tree.branch())) : values;
            case UNDER ->
                values.isEmpty() && !prefix.isEmpty() && values(ScopePart.FILE).isEmpty()
                        ? List.of("/" + escaped(prefix))
                        : within(prefix, values);
            case NOT_UNDER -> within(prefix, values);
            case LABEL, TYPE, TRAIT, NOT_TRAIT, EXCEPT, LIFT, FILE, CHANGED_AFTER, CHANGED_BEFORE, REGION, NOT_REGION ->
                values;
        };
    }

    /** Globs as they are written in a folder, from the root of its repository. */
    private static List<String> within(String prefix, List<String> globs) {
        return globs.stream()
                .map(glob -> prefix.isEmpty()
                        ? glob
                        : "/" + escaped(prefix)
                                + (glob.replaceAll("/$", "").contains("/")
                                        ? glob.replaceAll("^\\.?/", "")
                                        : "**/" + glob))
                .toList();
    }

    /** Text as a glob for itself. */
    private static String escaped(String text) {
        return text.replaceAll("[\\[*?]", "[$0]");
    }
}
