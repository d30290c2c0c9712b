package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.Watch;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.ResultText;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "watches",
        mixinStandardHelpOptions = true,
        description = "Saved searches that you watch: you are told when something new matches.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            WatchesCommand.ListCommand.class,
            WatchesCommand.AddCommand.class,
            WatchesCommand.NoticesCommand.class,
            WatchesCommand.DeliveriesCommand.class,
            WatchesCommand.RemoveCommand.class
        },
        footer = {"", "Example: oddbeacon watches list"})
public final class WatchesCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(
                spec.commandLine(), "A command is missing: list, add, notices, deliveries or remove.");
    }

    private static String path(String... parts) {
        List<String> all = new ArrayList<>(List.of("watches"));
        all.addAll(List.of(parts));
        return Service.path(all.toArray(String[]::new));
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the searches that you watch.%n",
            footer = {"", "Example: oddbeacon watches list"})
    static final class ListCommand implements Callable<Integer> {
        private static final Columns<Watch> COLUMNS = new Columns<Watch>()
                .add("search", Watch::search)
                .add("of", Watch::of)
                .add("last", Watch::last)
                .add("gathered", Watch::gathered)
                .add("webhook", Watch::webhook)
                .add("mail", Watch::mail)
                .add("problem", Watch::problem);

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<Watch> watches = service.get(path(), new TypeReference<List<Watch>>() {});
            watches.forEach(print.printer(COLUMNS, ListCommand::print)::print);
            if (watches.isEmpty()) {
                Terminal.complain("nothing is watched yet; begin with: oddbeacon watches add SEARCH");
            }
            return ExitStatus.of(!watches.isEmpty());
        }

        private static void print(Terminal terminal, Watch watch) {
            List<String> parts = new ArrayList<>();
            parts.add(watch.last() == null ? "nothing new yet" : "new on " + day(watch.last()));
            Stream.of(watch.webhook(), watch.mail())
                    .filter(Objects::nonNull)
                    .map(to -> "sent to " + Terminal.clean(to)
                            + (watch.gathered().equals("not") ? "" : " by " + watch.gathered()))
                    .forEach(parts::add);
            if (watch.mutedUntil() != null) {
                parts.add("muted until " + day(watch.mutedUntil()));
            }
            terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(watch.search())) + "  "
                    + Terminal.clean(watch.of()) + ", " + String.join(", ", parts));
            if (watch.problem() != null) {
                terminal.line(terminal.styled(Terminal.Style.PROBLEM, "    " + Terminal.clean(watch.problem())));
            }
        }
    }

    private static String day(Instant when) {
        return LocalDate.ofInstant(when, ZoneId.systemDefault()).toString();
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description =
                    "Begins to watch a saved search, or changes how you are told. What matches already is not told. Prints the address of an Atom feed, and the secret that messages to a webhook are signed with: both this once.%n",
            footer = {
                "",
                "Examples:",
                "  oddbeacon watches add asks-tidewatch",
                "  oddbeacon watches add asks-tidewatch --webhook https://chat.quillhaven.example/hooks/pier --gathered hour"
            })
    static final class AddCommand implements Callable<Integer> {
        @Mixin
        private MeantSearch meant;

        @Option(names = "--went", negatable = true, description = "Tell also what does not match any more.")
        private Boolean went;

        @Option(
                names = "--gathered",
                paramLabel = "not|hour|day",
                description = "Whether messages are sent at once (not), or together.")
        private String gathered;

        @Option(
                names = "--muted-until",
                paramLabel = "DAY|MOMENT",
                description = "Send no message before: 2026-01-31, or 2026-01-31T08:00:00Z. One of the past ends it.")
        private String mutedUntil;

        @Option(
                names = "--webhook",
                paramLabel = "ADDRESS",
                description = "Where messages are sent to (Standard Webhooks); empty for nowhere.")
        private String webhook;

        @Option(names = "--mail", paramLabel = "ADDRESS", description = "Where mails go; '' for nowhere.")
        private String mail;

        @Option(names = "--new-feed", description = "Replace the address of the feed; the one before ends.")
        private boolean newFeed;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Watch watch = service.put(
                    path(meant.name()) + meant.whose(),
                    new Watch.Change(went, gathered, moment(), webhook, mail, newFeed ? true : null),
                    Watch.class);
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (watch.feed() != null) {
                terminal.line("feed: " + service.address() + watch.feed());
            }
            if (watch.secret() != null) {
                terminal.line("secret: " + watch.secret());
            }
            return ExitStatus.FOUND;
        }

        private Instant moment() {
            if (mutedUntil == null) {
                return null;
            }
            try {
                return mutedUntil.contains("T")
                        ? Instant.parse(mutedUntil)
                        : LocalDate.parse(mutedUntil)
                                .atStartOfDay(ZoneId.systemDefault())
                                .toInstant();
            } catch (DateTimeParseException e) {
                throw new ServiceProblem(
                        "\"" + mutedUntil
                                + "\" is no day and no moment. Write one as 2026-01-31 or 2026-01-31T08:00:00Z.",
                        ExitStatus.WRONG);
            }
        }
    }

    @Command(
            name = "notices",
            mixinStandardHelpOptions = true,
            description = "Prints what came, and what went, since you watch: the newest first.%n",
            footer = {"", "Example: oddbeacon watches notices asks-tidewatch"})
    static final class NoticesCommand implements Callable<Integer> {
        private static final Columns<Watch.Notice> COLUMNS = new Columns<Watch.Notice>()
                .add("happened", Watch.Notice::happened)
                .add("repository", Watch.Notice::repository)
                .add("came", Watch.Notice::cameCount)
                .add("went", Watch.Notice::wentCount);

        @Mixin
        private MeantSearch meant;

        @Option(
                names = "--limit",
                paramLabel = "COUNT",
                defaultValue = "50",
                description = "At most so many (default: ${DEFAULT-VALUE}, most 200).")
        private int limit;

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Watch.Notices page =
                    service.get(path(meant.name(), "notices"), meant.whose().add("limit", limit), Watch.Notices.class);
            page.notices().forEach(print.printer(COLUMNS, NoticesCommand::print)::print);
            if (page.next() != null) {
                Terminal.complain("there are more; --limit takes up to 200");
            }
            return ExitStatus.of(!page.notices().isEmpty());
        }

        private static void print(Terminal terminal, Watch.Notice notice) {
            terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(notice.repository())) + "  "
                    + notice.happened().toString().substring(0, 16).replace('T', ' ') + " UTC");
            print(terminal, "  + ", notice.came(), notice.cameCount());
            print(terminal, "  - ", notice.went(), notice.wentCount());
        }

        private static void print(Terminal terminal, String sign, List<Result> results, int count) {
            results.forEach(result -> ResultText.print(terminal, sign, result));
            if (count > results.size()) {
                terminal.line(sign + (count - results.size()) + " more");
            }
        }
    }

    @Command(
            name = "deliveries",
            mixinStandardHelpOptions = true,
            description =
                    "Prints the messages of a watch to its webhook and by mail, the newest first, and sends one again.%n",
            footer = {"", "Example: oddbeacon watches deliveries asks-tidewatch"})
    static final class DeliveriesCommand implements Callable<Integer> {
        private static final Columns<Watch.Delivery> COLUMNS = new Columns<Watch.Delivery>()
                .add("id", Watch.Delivery::id)
                .add("channel", Watch.Delivery::channel)
                .add("made", Watch.Delivery::made)
                .add("state", Watch.Delivery::state)
                .add("attempts", Watch.Delivery::attempts)
                .add("answer", Watch.Delivery::answer);

        @Mixin
        private MeantSearch meant;

        @Option(names = "--again", paramLabel = "ID", description = "Send this one again.")
        private Long again;

        @Mixin
        private PrintOptions print;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            if (again != null) {
                service.post(
                        path(meant.name(), "deliveries", again.toString(), "again") + meant.whose(),
                        null,
                        Watch.Delivery.class);
                return ExitStatus.FOUND;
            }
            List<Watch.Delivery> deliveries = service.get(
                    path(meant.name(), "deliveries"), meant.whose(), new TypeReference<List<Watch.Delivery>>() {});
            deliveries.forEach(print.printer(COLUMNS, DeliveriesCommand::print)::print);
            return ExitStatus.of(!deliveries.isEmpty());
        }

        private static void print(Terminal terminal, Watch.Delivery delivery) {
            terminal.line(delivery.id() + "  " + delivery.channel() + " " + delivery.state() + "  attempts: "
                    + delivery.attempts() + "  " + Terminal.clean(delivery.answer()));
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Ends watching saved searches; the searches stay.%n",
            footer = {"", "Example: oddbeacon watches remove asks-tidewatch"})
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
