package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.ResultText;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "worklists",
        mixinStandardHelpOptions = true,
        description = "Saved searches whose results a team ticks off.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            WorklistsCommand.ListCommand.class,
            WorklistsCommand.ShowCommand.class,
            WorklistsCommand.LeftCommand.class,
            WorklistsCommand.AddCommand.class,
            WorklistsCommand.ClaimCommand.class,
            WorklistsCommand.DoneCommand.class,
            WorklistsCommand.StaysCommand.class,
            WorklistsCommand.ReopenCommand.class,
            WorklistsCommand.RemoveCommand.class
        },
        footer = {"", "Example: oddbeacon worklists list"})
public final class WorklistsCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(
                spec.commandLine(),
                "A command is missing: list, show, left, add, claim, done, stays, reopen or remove.");
    }

    private static String path(String... parts) {
        List<String> all = new ArrayList<>(List.of("worklists"));
        all.addAll(List.of(parts));
        return Service.path(all.toArray(String[]::new));
    }

    /** The items that are meant. */
    static final class MeantItems {
        @Mixin
        private MeantSearch meant;

        @Parameters(
                index = "1..*",
                arity = "1..*",
                paramLabel = "ITEM",
                description = "Numbers of items, as show prints them.")
        private List<Long> items = new ArrayList<>();

        @Option(
                names = "--by",
                paramLabel = "NAME",
                description = "Who does it, where nobody signs in (default: the name on this machine).")
        private String by;

        private Integer change(Service service, String state, Boolean claimed, String why) {
            String name = by == null ? System.getProperty("user.name") : by;
            items.forEach(item -> service.put(
                    path(meant.name(), "items", item.toString()) + meant.whose(),
                    new Worklist.Change(state, claimed, why, name, null),
                    Worklist.Item.class));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the worklists of the searches that you have, with how much is left.%n",
            footer = {"", "Example: oddbeacon worklists list"})
    static final class ListCommand implements Callable<Integer> {
        private static final Columns<Worklist> COLUMNS = new Columns<Worklist>()
                .add("search", Worklist::search)
                .add("of", Worklist::of)
                .add("open", Worklist::open)
                .add("claimed", Worklist::claimed)
                .add("done", Worklist::done)
                .add("stays", Worklist::stays)
                .add("gone", Worklist::gone)
                .add("problem", Worklist::problem);

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<Worklist> lists = service.get(path(), new TypeReference<List<Worklist>>() {});
            lists.forEach(print.printer(COLUMNS, ListCommand::print)::print);
            if (lists.isEmpty()) {
                Terminal.complain("no worklists yet; make one with: oddbeacon worklists add SEARCH");
            }
            return ExitStatus.of(!lists.isEmpty());
        }

        private static void print(Terminal terminal, Worklist list) {
            terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(list.search())) + "  "
                    + Terminal.clean(list.of()) + ", " + list.open() + " open (" + list.claimed() + " claimed), "
                    + list.done() + " done, " + list.stays() + " stay, " + list.gone() + " gone");
            if (list.problem() != null) {
                terminal.line(terminal.styled(Terminal.Style.PROBLEM, "    " + Terminal.clean(list.problem())));
            }
        }
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "Prints the items of a worklist, with the number that other commands take.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon worklists show asks-tidewatch",
                "  oddbeacon worklists show asks-tidewatch --state done --state stays",
                "  oddbeacon worklists show asks-tidewatch --owner @quillhaven/shore"
            })
    static final class ShowCommand implements Callable<Integer> {
        private static final Columns<Worklist.Item> COLUMNS = new Columns<Worklist.Item>()
                .add("item", Worklist.Item::id)
                .add("state", Worklist.Item::state)
                .add("owners", item -> String.join(" ", item.owners()))
                .add("claimedBy", Worklist.Item::claimedBy)
                .add("repository", item -> item.result().repository())
                .add("path", item -> item.result().path())
                .add("line", item -> item.result().line())
                .add("text", item -> item.result().text())
                .add("why", Worklist.Item::why);

        @Mixin
        private MeantSearch meant;

        @Option(
                names = "--state",
                paramLabel = "open|done|stays|gone",
                description = "Only these; may be given several times (default: open).")
        private List<String> states = new ArrayList<>();

        @Option(
                names = "--owner",
                paramLabel = "NAME",
                description = "Only items in files of this owner, as CODEOWNERS of their repository says.")
        private String owner;

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<String> wanted = states.isEmpty() ? List.of("open") : states;
            Worklist.Items items = service.get(
                    path(meant.name(), "items"),
                    meant.whose()
                            .addAll("state", wanted)
                            .addGiven("owner", owner)
                            .add("limit", 10_000),
                    Worklist.Items.class);
            items.items().forEach(print.printer(COLUMNS, ShowCommand::print)::print);
            if (items.count() > items.items().size()) {
                Terminal.complain("the first " + items.items().size() + " of " + items.count() + " items");
            }
            return ExitStatus.of(!items.items().isEmpty());
        }

        private static void print(Terminal terminal, Worklist.Item item) {
            String state = item.claimedBy() == null ? item.state() : item.state() + " " + item.claimedBy();
            ResultText.print(
                    terminal,
                    String.format(Locale.ROOT, "%6d  %-12s  ", item.id(), Terminal.clean(state)),
                    item.result());
            if (!item.why().isEmpty()) {
                terminal.line("        stays: " + Terminal.clean(item.why()));
            }
        }
    }

    @Command(
            name = "left",
            mixinStandardHelpOptions = true,
            description = "Prints what was open at the end of each day, and when nothing is left at this pace.%n",
            footer = {"", "Example: oddbeacon worklists left asks-tidewatch"})
    static final class LeftCommand implements Callable<Integer> {
        private static final Columns<Worklist.Day> COLUMNS =
                new Columns<Worklist.Day>().add("day", Worklist.Day::day).add("open", Worklist.Day::items);

        @Mixin
        private MeantSearch meant;

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Worklist.Left left = service.get(path(meant.name(), "left"), meant.whose(), Worklist.Left.class);
            left.days()
                    .forEach(
                            print.printer(COLUMNS, (terminal, day) -> terminal.line(day.day() + "  " + day.items()))
                                    ::print);
            if (left.zero() != null && print.isText()) {
                Terminal.complain("nothing is left on " + left.zero() + ", if it goes on as in the last four weeks");
            }
            return ExitStatus.of(!left.days().isEmpty());
        }
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Makes a worklist of a saved search: what it finds becomes items, and new matches join.%n",
            footer = {"", "Example: oddbeacon worklists add asks-tidewatch"})
    static final class AddCommand implements Callable<Integer> {
        @Mixin
        private MeantSearch meant;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            service.put(path(meant.name()) + meant.whose(), null, Worklist.class);
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "claim",
            mixinStandardHelpOptions = true,
            description = "Says that you are at items, or not any more.%n",
            footer = {"", "Example: oddbeacon worklists claim asks-tidewatch 1 2"})
    static final class ClaimCommand implements Callable<Integer> {
        @Mixin
        private MeantItems items;

        @Option(names = "--release", description = "Not any more.")
        private boolean release;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            return items.change(service, null, !release, null);
        }
    }

    @Command(
            name = "done",
            mixinStandardHelpOptions = true,
            description = "Ticks items off. Those that are not found any more are gone by themselves.%n",
            footer = {"", "Example: oddbeacon worklists done asks-tidewatch 3"})
    static final class DoneCommand implements Callable<Integer> {
        @Mixin
        private MeantItems items;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            return items.change(service, "done", null, null);
        }
    }

    @Command(
            name = "stays",
            mixinStandardHelpOptions = true,
            description = "Says why items stay as they are.%n",
            footer = {"", "Example: oddbeacon worklists stays asks-tidewatch 4 --why 'Of the old signs'"})
    static final class StaysCommand implements Callable<Integer> {
        @Mixin
        private MeantItems items;

        @Option(names = "--why", paramLabel = "TEXT", required = true, description = "The reason.")
        private String why;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            return items.change(service, "stays", null, why);
        }
    }

    @Command(
            name = "reopen",
            mixinStandardHelpOptions = true,
            description = "Opens items again that were ticked off.%n",
            footer = {"", "Example: oddbeacon worklists reopen asks-tidewatch 3"})
    static final class ReopenCommand implements Callable<Integer> {
        @Mixin
        private MeantItems items;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            return items.change(service, "open", null, "");
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Ends a worklist, with what was ticked off; the search stays.%n",
            footer = {"", "Example: oddbeacon worklists remove asks-tidewatch"})
    static final class RemoveCommand implements Callable<Integer> {
        @Mixin
        private MeantSearch meant;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            service.delete(path(meant.name()) + meant.whose());
            return ExitStatus.FOUND;
        }
    }
}
