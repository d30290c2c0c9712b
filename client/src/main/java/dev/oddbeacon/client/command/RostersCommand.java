package dev.oddbeacon.client.command;

import dev.oddbeacon.api.NewRoster;
import dev.oddbeacon.api.RosterInfo;
import dev.oddbeacon.api.RosterPreview;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.output.TextTable;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Function;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "rosters",
        mixinStandardHelpOptions = true,
        description =
                "Lists of repositories that are followed: what appears in one is indexed, what goes is taken out.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            RostersCommand.ListCommand.class,
            RostersCommand.AddCommand.class,
            RostersCommand.RefreshCommand.class,
            RostersCommand.RemoveCommand.class
        },
        footer = {"", "Example: oddbeacon rosters list"})
public final class RostersCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(
                spec.commandLine(), "A command is missing: list, add, refresh or remove.");
    }

    private static void print(Terminal terminal, RosterInfo info) {
        terminal.line(info.roster().name() + ": " + Amounts.number(info.repositories()) + " repositories"
                + (info.leaving() == 0 ? "" : ", " + Amounts.number(info.leaving()) + " of them leaving")
                + (info.leftOut() == 0 ? "" : "; " + Amounts.number(info.leftOut()) + " entries left out")
                + (info.problem() == null ? "." : ". " + Terminal.clean(info.problem())));
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the rosters that are followed.%n",
            footer = {"", "Example: oddbeacon rosters list"})
    static final class ListCommand implements Callable<Integer> {
        @Mixin
        private SingleFormat format;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<RosterInfo> all = service.get(Service.path("rosters"), new TypeReference<List<RosterInfo>>() {});
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (format.isJson()) {
                all.forEach(terminal::json);
                return ExitStatus.of(!all.isEmpty());
            }
            if (all.isEmpty()) {
                Terminal.complain("no roster is followed; follow one with: oddbeacon rosters add NAME SOURCE");
                return ExitStatus.of(false);
            }
            List<List<String>> rows = new ArrayList<>();
            all.forEach(one -> rows.add(List.of(
                    one.roster().name(),
                    Amounts.number(one.repositories()),
                    Amounts.number(one.leaving()),
                    Amounts.number(one.leftOut()),
                    one.read() == null ? "never" : Amounts.ago(one.read()),
                    one.roster().source()
                            + (one.roster().path() == null
                                    ? ""
                                    : " " + one.roster().path()))));
            TextTable.print(
                    terminal,
                    List.of("NAME", "REPOSITORIES", "LEAVING", "LEFT OUT", "READ", "SOURCE"),
                    rows,
                    Set.of(1, 2, 3));
            all.stream()
                    .filter(one -> one.problem() != null)
                    .forEach(one -> terminal.line(terminal.styled(
                            Terminal.Style.PROBLEM, one.roster().name() + ": " + Terminal.clean(one.problem()))));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description =
                    "Follows a roster from now on, in place of one of its name. With --preview, says what that would do and does nothing.%n",
            footer = {
                "",
                "A source is a folder, whose repositories are those at any depth in it; a file or an http(s) address with a",
                "list, as repos add --from takes it, or with an object of JSON a line; or, with --path, a repository that",
                "holds such a list. Labels, branches and who sees it hold for all, or for names like a pattern: PATTERN=VALUE.",
                "A branch is a name, or a pattern for several: 'release/*', and :NUMBER for the newest: 'tags/v*:5'.",
                "",
                "Examples:",
                "  oddbeacon rosters add fleet /srv/git --preview",
                "  oddbeacon rosters add fleet /srv/git --label ours --label 'timetable*=planning' --branch 'tags/v*:3'",
                "  oddbeacon rosters add partners https://git.quillhaven.example/lists.git --path partners.tsv"
            })
    static final class AddCommand implements Callable<Integer> {
        private static final String EVERY = "*";

        @Parameters(index = "0", paramLabel = "NAME", description = "How the roster is called here.")
        private String name;

        @Parameters(index = "1", paramLabel = "SOURCE", description = "Where the list is.")
        private String source;

        @Option(names = "--path", paramLabel = "PATH", description = "The list's path, if SOURCE is a repository.")
        private String path;

        @Option(
                names = "--only",
                paramLabel = "GLOB",
                description = "Only repositories with such a name; may be repeated.")
        private List<String> only = new ArrayList<>();

        @Option(names = "--label", paramLabel = "[PATTERN=]LABEL", description = "A label that they get.")
        private List<String> labels = new ArrayList<>();

        @Option(
                names = "--branch",
                paramLabel = "[PATTERN=]BRANCH",
                description = "A branch or tag to index, or a pattern (default: what HEAD stands for).")
        private List<String> branches = new ArrayList<>();

        @Option(
                names = "--visible-to",
                paramLabel = "[PATTERN=]WHO",
                description =
                        "Who may see them, at a service with accounts: everybody, team:NAME or person:NAME (default: administrators).")
        private List<String> visibleTo = new ArrayList<>();

        @Option(
                names = "--grace",
                paramLabel = "DAYS",
                description = "What is not in the list any more is taken out after so many days (default: 7).")
        private Integer graceDays;

        @Option(names = "--preview", description = "Say what it would do, and do nothing.")
        private boolean preview;

        @Mixin
        private SingleFormat format;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            NewRoster wanted = new NewRoster(name, absolute(source), path, only, rules(), graceDays);
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (!preview) {
                RosterInfo followed = service.put(Service.path("rosters"), wanted, RosterInfo.class);
                if (format.isJson()) {
                    terminal.json(followed);
                } else {
                    print(terminal, followed);
                }
                return ExitStatus.FOUND;
            }
            RosterPreview found = service.post(Service.path("rosters", "preview"), wanted, RosterPreview.class);
            if (format.isJson()) {
                found.entries().forEach(terminal::json);
            } else {
                show(terminal, found);
            }
            return ExitStatus.of(!found.entries().isEmpty());
        }

        private static void show(Terminal terminal, RosterPreview found) {
            List<List<String>> rows = new ArrayList<>();
            found.entries()
                    .forEach(one -> rows.add(List.of(
                            one.standing().replace('-', ' '),
                            one.name(),
                            String.join(",", one.labels()),
                            one.branches().isEmpty() ? "HEAD" : String.join(",", one.branches()),
                            one.visibleTo().isEmpty() ? "-" : String.join(",", one.visibleTo()),
                            one.location(),
                            one.problem() == null ? "" : Terminal.clean(one.problem()))));
            TextTable.print(
                    terminal,
                    List.of("STANDING", "NAME", "LABELS", "BRANCHES", "SEEN BY", "LOCATION", ""),
                    rows,
                    Set.of());
            if (found.problem() != null) {
                terminal.line(terminal.styled(Terminal.Style.PROBLEM, Terminal.clean(found.problem())));
            }
            terminal.line("Nothing was done. Without --preview, the roster is followed.");
        }

        /** A folder or file of this machine as a whole path. */
        private static String absolute(String source) {
            boolean isHere = !source.contains("://") && !source.contains("@") && Files.exists(Path.of(source));
            return isHere ? Path.of(source).toAbsolutePath().normalize().toString() : source;
        }

        /** One rule for each pattern that is used. */
        private List<NewRoster.Rule> rules() {
            Map<String, NewRoster.Rule> rules = new LinkedHashMap<>();
            add(rules, labels, NewRoster.Rule::labels);
            add(rules, branches, NewRoster.Rule::branches);
            add(rules, visibleTo, NewRoster.Rule::visibleTo);
            return List.copyOf(rules.values());
        }

        private static void add(
                Map<String, NewRoster.Rule> rules, List<String> values, Function<NewRoster.Rule, List<String>> part) {
            for (String value : values) {
                int equals = value.indexOf('=');
                String pattern = equals > 0 ? value.substring(0, equals) : EVERY;
                NewRoster.Rule rule = rules.computeIfAbsent(
                        pattern,
                        match -> new NewRoster.Rule(match, new ArrayList<>(), new ArrayList<>(), new ArrayList<>()));
                part.apply(rule).add(value.substring(equals > 0 ? equals + 1 : 0));
            }
        }
    }

    @Command(
            name = "refresh",
            mixinStandardHelpOptions = true,
            description = "Reads rosters now, and does what they say.%n",
            footer = {"", "Example: oddbeacon rosters refresh fleet"})
    static final class RefreshCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "1..*")
        private List<String> names;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            names.forEach(name ->
                    print(terminal, service.post(Service.path("rosters", name, "refresh"), null, RosterInfo.class)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Follows rosters no more. The repositories that came of them stay.%n",
            footer = {"", "Example: oddbeacon rosters remove fleet"})
    static final class RemoveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "1..*")
        private List<String> names;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            names.forEach(name -> service.delete(Service.path("rosters", name)));
            return ExitStatus.FOUND;
        }
    }
}
