package dev.oddbeacon.client.command;

import dev.oddbeacon.api.ExclusionPreview;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.OutputFormat;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "sets",
        mixinStandardHelpOptions = true,
        description = "Exclusion sets: named lists of path patterns that take files out of searches.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            SetsCommand.ListCommand.class,
            SetsCommand.ShowCommand.class,
            SetsCommand.SaveCommand.class,
            SetsCommand.RemoveCommand.class,
            SetsCommand.PreviewCommand.class,
            SetsCommand.ExportCommand.class,
            SetsCommand.ImportCommand.class
        },
        footer = {
            "",
            "Patterns are those of Git's ignore files, from the root of each repository, one a line:",
            "  name      files and folders of that name at any depth, with all below them",
            "  name/     folders only",
            "  /name     at the root only; so does any pattern with a slash inside: src/gen",
            "  *.po      * is any part of a name, ? one character, ** any folders",
            "  !name     brings back what patterns before it took out",
            "",
            "Example: oddbeacon sets list"
        })
public final class SetsCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(
                spec.commandLine(), "A command is missing: list, show, save, remove, preview, export or import.");
    }

    private static String path(String... parts) {
        List<String> all = new ArrayList<>(List.of("exclusion-sets"));
        all.addAll(List.of(parts));
        return Service.path(all.toArray(String[]::new));
    }

    private static Service.Parameters parameters(boolean own) {
        return own ? new Service.Parameters().add("own", true) : new Service.Parameters();
    }

    private static String whose(boolean own) {
        return parameters(own).toString();
    }

    private static ExclusionSetInfo find(Service service, String name) {
        return service.get(path(name), new Service.Parameters(), ExclusionSetInfo.class);
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the exclusion sets.%n",
            footer = {"", "Example: oddbeacon sets list"})
    static final class ListCommand implements Callable<Integer> {
        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        private static final Columns<ExclusionSetInfo> COLUMNS = new Columns<ExclusionSetInfo>()
                .add("name", ExclusionSetInfo::name)
                .add("patterns", ListCommand::patterns)
                .add("byDefault", ExclusionSetInfo::byDefault)
                .add("description", ExclusionSetInfo::description)
                .add("own", ExclusionSetInfo::own);

        @Override
        public Integer call() {
            List<ExclusionSetInfo> sets = service.get(path(), new TypeReference<List<ExclusionSetInfo>>() {});
            int width = sets.stream().mapToInt(set -> set.name().length()).max().orElse(0);
            sets.forEach(print.printer(COLUMNS, (terminal, set) -> print(terminal, set, width))::print);
            if (sets.isEmpty()) {
                Terminal.complain("no exclusion sets yet; make one with: oddbeacon sets save NAME --from FILE");
            }
            return ExitStatus.of(!sets.isEmpty());
        }

        private static void print(Terminal terminal, ExclusionSetInfo set, int width) {
            String padding = " ".repeat(width - set.name().length());
            terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(set.name()) + padding) + "  "
                    + Amounts.of(patterns(set), "pattern") + (set.byDefault() ? ", by default" : "")
                    + (set.own() ? ", your own" : "")
                    + (set.description().isEmpty() ? "" : "  " + Terminal.clean(set.description())));
        }

        private static long patterns(ExclusionSetInfo set) {
            return set.patterns()
                    .lines()
                    .filter(line -> !line.isBlank() && !line.startsWith("#"))
                    .count();
        }
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "Prints the patterns of a set.%n",
            footer = {"", "Example: oddbeacon sets show translations"})
    static final class ShowCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME")
        private String name;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            find(service, name).patterns().lines().forEach(line -> terminal.line(Terminal.clean(line)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "save",
            mixinStandardHelpOptions = true,
            description = "Makes an exclusion set, or changes one.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon sets save generated --pattern 'gen/' --pattern '*.pb.go'",
                "  oddbeacon sets save translations --from patterns.txt --default"
            })
    static final class SaveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME")
        private String name;

        @Option(
                names = "--pattern",
                paramLabel = "PATTERN",
                description = "A pattern; several become lines in this order.")
        private List<String> patterns = new ArrayList<>();

        @Option(names = "--from", paramLabel = "FILE|-", description = "A file of patterns, one a line.")
        private String from;

        @Option(names = "--description", paramLabel = "TEXT", description = "What the set is for.")
        private String description;

        @Option(
                names = "--default",
                negatable = true,
                description = "Whether every search applies it, unless it is lifted.")
        private Boolean byDefault;

        @Option(names = "--own", description = "Of your own: nobody else sees it, or searches without its files.")
        private boolean own;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if (from != null && !patterns.isEmpty()) {
                throw new ServiceProblem(
                        "Give the patterns with --pattern or with --from, not with both.", ExitStatus.WRONG);
            }
            Optional<ExclusionSetInfo> before =
                    service.get(path(), new TypeReference<List<ExclusionSetInfo>>() {}).stream()
                            .filter(set -> set.name().equals(name) && set.own() == own)
                            .findFirst();
            String text = from != null
                    ? FileText.read(from)
                    : !patterns.isEmpty()
                            ? String.join("\n", patterns) + "\n"
                            : before.map(ExclusionSetInfo::patterns)
                                    .orElseThrow(() -> new ServiceProblem(
                                            "There is no exclusion set " + name
                                                    + " yet. Give its patterns with --pattern or --from.",
                                            ExitStatus.WRONG));
            ExclusionSetInfo.Change change = new ExclusionSetInfo.Change(
                    description == null
                            ? before.map(ExclusionSetInfo::description).orElse("")
                            : description,
                    byDefault == null ? before.map(ExclusionSetInfo::byDefault).orElse(false) : byDefault,
                    text,
                    before.map(ExclusionSetInfo::version).orElse(null));
            try {
                service.put(path(name) + whose(own), change, ExclusionSetInfo.class);
            } catch (ServiceProblem problem) {
                throw problem.mistakes().isEmpty()
                        ? problem
                        : new ServiceProblem(
                                problem.mistakes().stream()
                                                .map(mistake -> mistake.message() + "\n")
                                                .reduce("", String::concat)
                                        + "Nothing was saved.",
                                problem.exitStatus());
            }
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Removes exclusion sets. Searches that name them will say so.%n",
            footer = {"", "Example: oddbeacon sets remove translations"})
    static final class RemoveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "1..*")
        private List<String> names;

        @Option(names = "--own", description = "Of your own.")
        private boolean own;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            names.forEach(name -> find(service, name)); // all are there, or none is removed
            names.forEach(name -> service.delete(path(name) + whose(own)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "preview",
            mixinStandardHelpOptions = true,
            description =
                    "Tells what patterns take out of a scope, pattern by pattern, and warns where that may not be meant.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon sets preview --pattern 'vendor' --repo fare-gate",
                "  oddbeacon sets preview --set translations"
            })
    static final class PreviewCommand implements Callable<Integer> {
        private static final int SAMPLES = 3;

        @Option(names = "--pattern", paramLabel = "PATTERN", description = "A pattern; several stand in this order.")
        private List<String> patterns = new ArrayList<>();

        @Option(names = "--from", paramLabel = "FILE|-", description = "A file of patterns, one a line.")
        private String from;

        @Option(names = "--set", paramLabel = "NAME", description = "An exclusion set that is there.")
        private String set;

        @Option(
                names = "--format",
                paramLabel = "text|jsonl",
                defaultValue = "text",
                description = "jsonl: all of it as one JSON object (default: ${DEFAULT-VALUE}).")
        private OutputFormat format;

        @Mixin
        private ScopeOptions scope;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if ((from == null ? 0 : 1) + (set == null ? 0 : 1) + (patterns.isEmpty() ? 0 : 1) != 1) {
                throw new ServiceProblem(
                        "Give the patterns in one way: with --pattern, with --from, or with --set.", ExitStatus.WRONG);
            }
            String text = from != null
                    ? FileText.read(from)
                    : set != null ? find(service, set).patterns() : String.join("\n", patterns);
            Service.Parameters parameters = new Service.Parameters();
            scope.addTo(parameters, service);
            ExclusionPreview preview = service.post(
                    path("preview") + parameters, new ExclusionPreview.Request(text), ExclusionPreview.class);
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (format == OutputFormat.JSONL) {
                terminal.json(preview);
            } else {
                print(terminal, preview);
            }
            preview.mistakes().forEach(mistake -> Terminal.complain(mistake.message()));
            return preview.mistakes().isEmpty() ? ExitStatus.FOUND : ExitStatus.WRONG;
        }

        private static void print(Terminal terminal, ExclusionPreview preview) {
            terminal.line(Amounts.number(preview.left()) + " of " + Amounts.of(preview.files(), "file") + " are left.");
            for (ExclusionPreview.Pattern pattern : preview.patterns()) {
                int single = pattern.files() - pattern.filesInFolders();
                terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(pattern.text())) + "  "
                        + (pattern.bringsBack() ? "brings back " : "takes out ") + Amounts.of(pattern.files(), "file")
                        + (pattern.folders() == 0
                                ? ""
                                : single == 0
                                        ? " in " + Amounts.of(pattern.folders(), "whole folder")
                                        : ": " + Amounts.number(pattern.filesInFolders()) + " in "
                                                + Amounts.of(pattern.folders(), "whole folder") + ", "
                                                + Amounts.number(single) + " one by one"));
                pattern.sampleFolders().stream()
                        .limit(SAMPLES)
                        .forEach(folder -> terminal.line(terminal.styled(
                                Terminal.Style.QUIET,
                                "    " + Terminal.clean(folder.repository() + "/" + folder.path()) + "/  "
                                        + Amounts.of(folder.files(), "file"))));
                pattern.sampleFiles().stream()
                        .limit(SAMPLES)
                        .forEach(file -> terminal.line(terminal.styled(
                                Terminal.Style.QUIET, "    " + Terminal.clean(file.repository() + "/" + file.path()))));
                if (pattern.warning() != null) {
                    terminal.line(terminal.styled(Terminal.Style.PROBLEM, "    " + Terminal.clean(pattern.warning())));
                }
            }
        }
    }

    @Command(
            name = "export",
            mixinStandardHelpOptions = true,
            description = "Prints sets as a YAML file, to keep under version control.%n",
            footer = {"", "Example: oddbeacon sets export translations > exclusion-sets.yaml"})
    static final class ExportCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "0..*", description = "Without a name: all.")
        private List<String> names = new ArrayList<>();

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Terminal.bytes(service.bytes(path("file"), new Service.Parameters().addAll("name", names)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "import",
            mixinStandardHelpOptions = true,
            description = "Takes sets from a YAML file: all of them, or none if anything is wrong.%n",
            footer = {"", "Example: oddbeacon sets import exclusion-sets.yaml --replace"})
    static final class ImportCommand implements Callable<Integer> {
        @Parameters(paramLabel = "FILE|-")
        private String file;

        @Option(names = "--replace", description = "Replace sets that are there already.")
        private boolean replace;

        @Option(names = "--own", description = "As sets of your own.")
        private boolean own;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<ExclusionSetInfo> sets = service.postText(
                    path("file") + parameters(own).add("replace", replace),
                    "application/yaml",
                    FileText.read(file),
                    new TypeReference<List<ExclusionSetInfo>>() {});
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            sets.forEach(set -> terminal.line(Terminal.clean(set.name())));
            return ExitStatus.FOUND;
        }
    }
}
