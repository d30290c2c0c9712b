package dev.oddbeacon.client.command;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.Viewers;
import dev.oddbeacon.api.WhoSees;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.RepositoryTable;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "repos",
        mixinStandardHelpOptions = true,
        description = "Lists, adds, refreshes, removes and purges repositories; tells their branches and tags.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            ReposCommand.ListCommand.class,
            ReposRevisionsCommand.class,
            ReposAddCommand.class,
            ReposCommand.RefreshCommand.class,
            ReposCommand.RemoveCommand.class,
            ReposCommand.PurgeCommand.class,
            ReposCommand.ViewersCommand.class
        },
        footer = {"", "Example: oddbeacon repos list"})
public final class ReposCommand implements Runnable {
    private static final int PAGE = 1_000;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(
                spec.commandLine(), "A command is missing: list, add, refresh, remove, purge or viewers.");
    }

    static List<RepositoryInfo> all(Service service) {
        return all(service, "*", "");
    }

    /** Asked for page by page: one of ten thousand would be megabytes. */
    private static List<RepositoryInfo> all(Service service, String pattern, String state) {
        List<RepositoryInfo> all = new ArrayList<>();
        List<RepositoryInfo> page;
        do {
            page = service.get(
                    Service.path("repositories"),
                    new Service.Parameters()
                            .add("match", pattern)
                            .addGiven("state", state)
                            .addGiven(
                                    "after", all.isEmpty() ? "" : all.getLast().name())
                            .add("limit", PAGE),
                    new TypeReference<List<RepositoryInfo>>() {});
            all.addAll(page);
        } while (page.size() == PAGE);
        return all;
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the registered repositories.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon repos list --label customer",
                "  oddbeacon repos list 'tide*' --state ready"
            })
    static final class ListCommand implements Callable<Integer> {
        @Parameters(
                paramLabel = "PATTERN",
                arity = "0..1",
                defaultValue = "*",
                description = "Only repositories whose name matches, with * and ?.")
        private String pattern;

        @Option(
                names = "--state",
                paramLabel = "STATE",
                defaultValue = "",
                description = "Only those that are waiting, indexing, ready or failed.")
        private String state;

        @Option(names = "--label", paramLabel = "LABEL", description = "Only repositories with this label.")
        private List<String> labels = new ArrayList<>();

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<RepositoryInfo> shown = all(service, pattern, state).stream()
                    .filter(info -> labels.isEmpty() || info.labels().stream().anyMatch(labels::contains))
                    .toList();
            if (shown.isEmpty()) {
                Terminal.complain(
                        labels.isEmpty() && pattern.equals("*") && state.isEmpty()
                                ? "no repositories yet; add one with: oddbeacon repos add NAME LOCATION --wait"
                                : "no repository is like that.");
            }
            switch (print.format()) {
                case JSONL -> shown.forEach(print.terminal()::json);
                case CSV -> RepositoryTable.printRecords(print.terminal(), shown);
                case TEXT, SARIF -> RepositoryTable.print(print.terminal(), shown);
            }
            return ExitStatus.of(!shown.isEmpty());
        }
    }

    @Command(
            name = "refresh",
            mixinStandardHelpOptions = true,
            description = "Fetches repositories and indexes what is new.%n",
            footer = {"", "Examples:", "  oddbeacon repos refresh tidewatch --wait", "  oddbeacon repos refresh --all"})
    static final class RefreshCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "0..*")
        private List<String> names = new ArrayList<>();

        @Option(names = "--all", description = "Every repository.")
        private boolean all;

        @Option(names = "--wait", description = "Return when the new state can be searched.")
        private boolean wait;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if (all == !names.isEmpty()) {
                throw new ServiceProblem("Name the repositories to refresh, or give --all.", ExitStatus.WRONG);
            }
            List<String> chosen =
                    all ? all(service).stream().map(RepositoryInfo::name).toList() : names;
            chosen.forEach(name -> service.get(
                    Service.path("repositories", name),
                    new Service.Parameters(),
                    RepositoryInfo.class)); // all are there, or none is touched
            chosen.forEach(
                    name -> service.post(Service.path("repositories", name, "refresh"), null, RepositoryInfo.class));
            return wait ? new Waiting(service).until(chosen) : ExitStatus.FOUND;
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description =
                    "Takes repositories, and all that is indexed of them, out of the service. The repositories themselves are not touched.%n",
            footer = {"", "Example: oddbeacon repos remove deck-signs"})
    static final class RemoveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", arity = "1..*")
        private List<String> names;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            names.forEach(name ->
                    service.get(Service.path("repositories", name), new Service.Parameters(), RepositoryInfo.class));
            names.forEach(name -> service.delete(Service.path("repositories", name)));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "purge",
            mixinStandardHelpOptions = true,
            description =
                    "Fetches, indexes and reads a repository anew, and leaves nothing of what was there before. For a text that should never have been pushed: rewrite the history of the repository first.%n",
            footer = {
                "",
                "Other repositories that hold the same text keep it, and so do copies of the data folder;",
                "backups do only of repositories that could not be fetched from. A search for the text",
                "tells who else has it.",
                "",
                "Example: oddbeacon repos purge fare-engine --wait"
            })
    static final class PurgeCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME")
        private String name;

        @Option(names = "--wait", description = "Return when nothing is left of it.")
        private boolean wait;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            service.post(Service.path("repositories", name, "purge"), null, RepositoryInfo.class);
            return wait ? new Waiting(service).until(List.of(name)) : ExitStatus.FOUND;
        }
    }

    @Command(
            name = "viewers",
            mixinStandardHelpOptions = true,
            description =
                    "Shows who may see a repository beside administrators, or says who: everybody, team:NAME, person:NAME.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon repos viewers hull-telemetry",
                "  oddbeacon repos viewers hull-telemetry --set team:engine-room --set person:edda",
                "  oddbeacon repos viewers hull-telemetry --nobody"
            })
    static final class ViewersCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME")
        private String name;

        @Option(names = "--set", paramLabel = "WHO", description = "Who may see it from now on; may be repeated.")
        private List<String> wanted = new ArrayList<>();

        @Option(names = "--people", description = "Everybody who sees it, too, and why.")
        private boolean people;

        @Option(names = "--nobody", description = "Nobody but administrators from now on.")
        private boolean nobody;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if (nobody && !wanted.isEmpty()) {
                throw new ServiceProblem("Give --set or --nobody, not both.", ExitStatus.WRONG);
            }
            String path = Service.path("repositories", name, "viewers");
            WhoSees viewers = nobody || !wanted.isEmpty()
                    ? service.put(path, new Viewers(wanted), WhoSees.class)
                    : service.get(path, new Service.Parameters(), WhoSees.class);
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            viewers.visibleTo().forEach(terminal::line);
            if (viewers.visibleTo().isEmpty()) {
                Terminal.complain("nobody but administrators sees " + name + ".");
            }
            if (people) {
                viewers.people()
                        .forEach(one -> terminal.line("  " + one.name() + "  " + Terminal.clean(one.displayName())
                                + ", as " + String.join(", ", one.why())));
            }
            return ExitStatus.FOUND;
        }
    }
}
