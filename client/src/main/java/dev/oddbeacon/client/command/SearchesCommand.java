package dev.oddbeacon.client.command;

import dev.oddbeacon.api.FollowedFileProblem;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.api.SearchCheck;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.SecondLooksReport;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "searches",
        mixinStandardHelpOptions = true,
        description = "Saved searches: kept under a name, for oneself, a team or everybody.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            SearchesCommand.ListCommand.class,
            SearchesCommand.ShowCommand.class,
            SearchesCommand.RunCommand.class,
            SearchesCommand.SaveCommand.class,
            SearchesCheckCommand.class,
            SearchesCommand.RemoveCommand.class,
            SearchesCommand.ExportCommand.class,
            SearchesCommand.ImportCommand.class
        },
        footer = {"", "Example: oddbeacon searches list"})
public final class SearchesCommand implements Runnable {
    private static final List<String> SUBJECTS = Arrays.stream(SavedSearch.Subject.values())
            .map(subject -> subject.name().toLowerCase(java.util.Locale.ROOT))
            .toList();
    private static final String REPLACE = "replace";
    private static final String SCOPE = "scope";
    /** What a search is without the parameter, so that it need not be kept. */
    private static final Map<String, List<String>> USUAL = Map.of(
            "reading", List.of("plain", "fragments"),
            "case", List.of("auto"),
            "word", List.of("false"),
            "without", List.of("false"),
            "reversed", List.of("false"),
            "role", List.of("declaration"));

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(
                spec.commandLine(), "A command is missing: list, show, run, check, save, remove, export or import.");
    }

    static String path(String... parts) {
        List<String> all = new ArrayList<>(List.of("saved-searches"));
        all.addAll(List.of(parts));
        return Service.path(all.toArray(String[]::new));
    }

    private static Service.Parameters whose(String of) {
        return new Service.Parameters().addGiven("of", of);
    }

    private static SavedSearch find(Service service, String name, String of) {
        return service.get(path(name), whose(of), SavedSearch.class);
    }

    /** The search as one would type it, after {@code oddbeacon}. */
    private static List<String> asTyped(SavedSearch search) {
        List<String> words = new ArrayList<>(List.of(search.subject()));
        List<String> text = new ArrayList<>();
        search.parameters().forEach((name, values) -> {
            for (String value : values) {
                switch (name) {
                    case "q" -> text.add(value);
                    case "reading" -> words.add("--" + value);
                    case "word", "without", "reversed" ->
                        words.addAll(value.equals("true") ? List.of("--" + name) : List.of());
                    default -> words.addAll(List.of(option(name), value));
                }
            }
        });
        if (text.stream().anyMatch(each -> each.startsWith("-"))) {
            words.add("--"); // it is no option
            words.addAll(text);
        } else {
            words.addAll(1, text);
        }
        return words;
    }

    private static String option(String parameter) {
        return Arrays.stream(ScopePart.values())
                .filter(part -> part.parameter().equals(parameter))
                .map(ScopePart::option)
                .findFirst()
                .orElse("--" + parameter);
    }

    private static String shellLine(SavedSearch search) {
        List<String> words = asTyped(search);
        if (search.subject().equals(SCOPE)) {
            words.set(0, "lines"); // or any other search
            words.add(1, "TEXT");
        }
        return words.stream()
                .map(word -> word.matches("[\\w./:@=+,-]+") ? word : SecondLooksReport.shellQuoted(word))
                .collect(Collectors.joining(" ", "oddbeacon ", ""));
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the saved searches that you have.%n",
            footer = {"", "Example: oddbeacon searches list"})
    static final class ListCommand implements Callable<Integer> {
        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        private static final Columns<SavedSearch> COLUMNS = new Columns<SavedSearch>()
                .add("name", SavedSearch::name)
                .add("of", SavedSearch::of)
                .add("subject", SavedSearch::subject)
                .add("description", SavedSearch::description)
                .add("problem", search -> Optional.ofNullable(search.problem()).orElse(""));

        @Override
        public Integer call() {
            List<SavedSearch> searches = service.get(path(), new TypeReference<List<SavedSearch>>() {});
            int width = searches.stream()
                    .mapToInt(search -> search.name().length())
                    .max()
                    .orElse(0);
            searches.forEach(print.printer(COLUMNS, (terminal, search) -> print(terminal, search, width))::print);
            if (searches.isEmpty()) {
                Terminal.complain(
                        "no saved searches yet; keep one with: oddbeacon searches save NAME lines TEXT, with its options");
            }
            service.get(path("file", "problems"), new TypeReference<List<FollowedFileProblem>>() {})
                    .forEach(problem -> Terminal.complain(Terminal.clean(problem.repository() + "/" + problem.path()
                            + ": " + problem.problem() + " What it held before stays.")));
            return ExitStatus.of(!searches.isEmpty());
        }

        private static void print(Terminal terminal, SavedSearch search, int width) {
            String padding = " ".repeat(width - search.name().length());
            terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(search.name()) + padding) + "  "
                    + search.subject() + ", " + Terminal.clean(search.of())
                    + (search.description().isEmpty() ? "" : "  " + Terminal.clean(search.description())));
            if (search.problem() != null) {
                terminal.line(terminal.styled(Terminal.Style.PROBLEM, "    " + Terminal.clean(search.problem())));
            }
        }
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "Prints a saved search as one would type it, and the checks of it that were kept.%n",
            footer = {"", "Example: oddbeacon searches show asks-tidewatch"})
    static final class ShowCommand implements Callable<Integer> {
        @Mixin
        private MeantSearch meant;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            SavedSearch search = meant.in(service);
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            terminal.line(Terminal.clean(shellLine(search)));
            if (search.replacement() != null) {
                terminal.line("  becomes " + Terminal.clean(search.replacement().with())
                        + "; oddbeacon replace --saved " + Terminal.clean(search.name()) + " shows what would change");
            }
            service.get(path(search.name(), "checks"), whose(search.of()), new TypeReference<List<SearchCheck>>() {})
                    .forEach(check -> terminal.line("  check " + Terminal.clean(check.name()) + ": " + check.results()
                            + " found on " + check.at().toString().substring(0, 10)));
            if (search.problem() != null) {
                Terminal.complain(search.problem());
            }
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "run",
            mixinStandardHelpOptions = true,
            description =
                    "Runs a saved search. More options are those of its subject: --format, --limit, --repo and so on.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon searches run asks-tidewatch",
                "  oddbeacon searches run asks-tidewatch --only counts"
            })
    static final class RunCommand implements Callable<Integer> {
        @Mixin
        private MeantSearch meant;

        @CommandLine.Unmatched
        private List<String> more = new ArrayList<>();

        @Mixin
        private Service service;

        @CommandLine.Spec
        private CommandLine.Model.CommandSpec spec;

        @Override
        public Integer call() {
            SavedSearch search = meant.in(service);
            if (search.subject().equals(SCOPE)) {
                throw new ServiceProblem(
                        search.name() + " is a scope: oddbeacon lines TEXT --scope " + search.name()
                                + " searches in it.",
                        ExitStatus.WRONG);
            }
            List<String> typed = asTyped(search);
            more.addAll(List.of("--url", service.url()));
            typed.addAll(1, more);
            return spec.root().commandLine().execute(typed.toArray(String[]::new));
        }
    }

    @Command(
            name = "save",
            mixinStandardHelpOptions = true,
            description =
                    "Keeps a search under a name, or changes one. What follows NAME is the search as one would type it; options of this command come before NAME.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon searches save --description 'What asks tidewatch' asks-tidewatch lines tidewatch.quillhaven.example --not-trait documentation",
                "  oddbeacon searches save --of me gates symbols --role any FareGate",
                "  oddbeacon searches save --of me gauges replace --repo shore-ops TIDEWATCH_URL GAUGES_URL",
                "  oddbeacon searches save --description 'What runs ashore' ashore scope --repo shore-ops --repo tidewatch"
            })
    static final class SaveCommand implements Callable<Integer> {
        @Option(
                names = "--of",
                paramLabel = "WHOSE",
                description = "Whose it will be: everybody (the default), team:NAME, or me.")
        private String of;

        @Option(names = "--description", paramLabel = "TEXT", description = "What it is for.")
        private String description;

        @Option(names = "--replace", description = "Change the one that there is.")
        private boolean replace;

        @Parameters(index = "0", paramLabel = "NAME")
        private String name;

        @Parameters(
                index = "1..*",
                arity = "1..*",
                paramLabel = "SEARCH",
                description =
                        "lines, files, symbols, commits or replace, and what follows them; or scope, and where to look.")
        private List<String> search = new ArrayList<>();

        @Mixin
        private Service service;

        @CommandLine.Spec
        private CommandLine.Model.CommandSpec spec;

        @Override
        public Integer call() {
            String command = search.getFirst();
            if (!SUBJECTS.contains(command) && !command.equals(REPLACE)) {
                throw new ServiceProblem(
                        "After the name comes a search as one would type it: lines, files, symbols, commits, replace or scope, not "
                                + command + ".",
                        ExitStatus.WRONG);
            }
            CommandLine asked = spec.root()
                    .commandLine()
                    .getSubcommands()
                    .get(command.equals(SCOPE) ? "files" : command); // which needs no text
            List<String> words = new ArrayList<>(search.subList(1, search.size()));
            words.addAll(0, List.of("--url", service.url()));
            asked.parseArgs(words.toArray(String[]::new));
            SearchToKeep kept = asked.getCommand();
            String subject = command.equals(REPLACE) ? kept.subject() : command;
            SortedMap<String, List<String>> parameters = kept.toKeep().values();
            parameters
                    .entrySet()
                    .removeIf(each -> command.equals(SCOPE)
                            ? !isOfScope(each.getKey())
                            : isUsual(subject, each.getKey(), each.getValue()));
            Optional<SavedSearch> before = service.get(path(), new TypeReference<List<SavedSearch>>() {}).stream()
                    .filter(each -> each.name().equals(name) && each.of().equals(of == null ? "everybody" : of))
                    .findFirst();
            if (before.isPresent() && !replace) {
                throw new ServiceProblem(
                        "There is a saved search " + name + " already. --replace changes it.", ExitStatus.WRONG);
            }
            service.put(
                    path(name),
                    new SavedSearch.Change(
                            of,
                            description != null
                                    ? description
                                    : before.map(SavedSearch::description).orElse(""),
                            subject,
                            parameters,
                            kept.instead().orElse(null),
                            null,
                            before.map(SavedSearch::version).orElse(null)),
                    SavedSearch.class);
            return ExitStatus.FOUND;
        }

        private static boolean isOfScope(String parameter) {
            return Arrays.stream(ScopePart.values())
                    .anyMatch(part -> part.parameter().equals(parameter));
        }

        private static boolean isUsual(String subject, String name, List<String> values) {
            String value = values.getFirst();
            return USUAL.getOrDefault(name, List.of()).contains(value)
                            && !(name.equals("reading") && value.equals("plain") && !subject.equals("lines"))
                    || name.equals("order") && value.equals("relevance")
                    || name.equals("kind") && subject.equals("files") && value.equals("file");
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Removes saved searches.%n",
            footer = {"", "Example: oddbeacon searches remove asks-tidewatch"})
    static final class RemoveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "1..*")
        private List<String> names;

        @Option(names = "--of", paramLabel = "WHOSE", description = MeantSearch.WHOSE)
        private String of;

        @Option(names = "--check", paramLabel = "CHECK", description = "Remove this check of it, and nothing else.")
        private String check;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if (check != null) {
                names.forEach(name -> service.delete(path(name, "checks", check) + whose(of)));
                return ExitStatus.FOUND;
            }
            names.forEach(name -> find(service, name, of)); // all are there, or none is removed
            names.forEach(name -> service.delete(path(name) + whose(of)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "export",
            mixinStandardHelpOptions = true,
            description =
                    "Prints saved searches as a YAML file, or all that one finds as JSON lines, to keep under version control.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon searches export asks-tidewatch > saved-searches.yaml",
                "  oddbeacon searches export asks-tidewatch --results > asks-tidewatch.jsonl"
            })
    static final class ExportCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "0..*", description = "Without a name: all.")
        private List<String> names = new ArrayList<>();

        @Option(names = "--results", description = "All that the search finds now, as JSON lines.")
        private boolean results;

        @Option(
                names = "--check",
                paramLabel = "CHECK",
                description = "All that it found at a check that was kept, as JSON lines.")
        private String check;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if (results || check != null) {
                if (names.size() != 1) {
                    throw new ServiceProblem("Name the one search whose results are wanted.", ExitStatus.WRONG);
                }
                Terminal.bytes(service.bytes(
                        check == null ? path(names.getFirst(), "results") : path(names.getFirst(), "checks", check),
                        new Service.Parameters()));
                return ExitStatus.FOUND;
            }
            Terminal.bytes(service.bytes(path("file"), new Service.Parameters().addAll("name", names)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "import",
            mixinStandardHelpOptions = true,
            description = "Takes saved searches from a YAML file: all of them, or none if anything is wrong.%n",
            footer = {"", "Example: oddbeacon searches import saved-searches.yaml --replace"})
    static final class ImportCommand implements Callable<Integer> {
        @Parameters(paramLabel = "FILE|-")
        private String file;

        @Option(names = "--replace", description = "Replace searches that are there already.")
        private boolean replace;

        @Option(
                names = "--of",
                paramLabel = "WHOSE",
                description = "Whose they will be: everybody (the default), team:NAME, or me.")
        private String of;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<SavedSearch> searches = service.postText(
                    path("file") + whose(of).add("replace", replace),
                    "application/yaml",
                    FileText.read(file),
                    new TypeReference<List<SavedSearch>>() {});
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            searches.forEach(search -> terminal.line(Terminal.clean(search.name())));
            return ExitStatus.FOUND;
        }
    }
}
