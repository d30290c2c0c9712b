package dev.oddbeacon.client.command;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.LogAnswer;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.options.Limit;
import dev.oddbeacon.client.options.Pages;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.CommitText;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "log",
        mixinStandardHelpOptions = true,
        description = "Lists the commits that changed a file or folder, the newest first.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon log tidewatch:tidewatch/stations.py",
            "  oddbeacon log berth-planner:src@main",
            "  oddbeacon log fare-gate"
        })
public final class LogCommand implements Callable<Integer> {
    private static final int PAGE = 1_000;

    @Parameters(
            paramLabel = "REPO[:PATH][@REV]",
            description = "The file or folder, or the whole repository; REPO/PATH is taken too.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "A branch, tag or commit, where the path holds an @.")
    private String revision;

    @Option(names = "--no-follow", description = "Do not follow a renamed file to its path before.")
    private boolean noFollow;

    @Option(
            names = "--limit",
            paramLabel = "N|all",
            defaultValue = "50",
            converter = Limit.Converter.class,
            description = "Most commits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    /** A commit as a JSON object. */
    record Printed(@JsonUnwrapped CommitInfo commit, String path, String from, String change, int added, int removed) {}

    private static final Columns<LogAnswer.Entry> COLUMNS = new Columns<LogAnswer.Entry>()
            .add("repository", entry -> entry.commit().repository())
            .add("commit", entry -> entry.commit().id())
            .add("authored", entry -> entry.commit().authored())
            .add("author", entry -> entry.commit().author().name())
            .add("change", LogAnswer.Entry::change)
            .add("path", LogAnswer.Entry::path)
            .add("from", LogAnswer.Entry::from)
            .add("added", LogAnswer.Entry::added)
            .add("removed", LogAnswer.Entry::removed)
            .add("summary", entry -> entry.commit().summary());

    @Override
    public Integer call() {
        FileName name = FileName.parseAny(file, revision);
        ResultPrinter<LogAnswer.Entry> printer = print.printer(
                COLUMNS,
                entry -> new Printed(
                        entry.commit(), entry.path(), entry.from(), entry.change(), entry.added(), entry.removed()),
                (terminal, entry) -> print(terminal, name.path(), entry));
        Pages<LogAnswer> pages = Pages.of(
                limit.most(),
                PAGE,
                (cursor, most) -> page(name, cursor, most),
                page -> {
                    page.entries().forEach(printer::print);
                    return page.entries().size();
                },
                LogAnswer::next);
        if (pages.cut()) {
            Terminal.complain("the first " + limit.most() + " commits; --limit all prints every one.");
        }
        return ExitStatus.of(!pages.first().entries().isEmpty());
    }

    private LogAnswer page(FileName name, String cursor, int most) {
        Service.Parameters parameters = new Service.Parameters()
                .add("path", name.path())
                .add("rev", name.revision())
                .add("follow", !noFollow)
                .add("limit", most)
                .addGiven("cursor", cursor);
        return service.get(Service.path("repositories", name.repository(), "log"), parameters, LogAnswer.class);
    }

    private static void print(Terminal terminal, String asked, LogAnswer.Entry entry) {
        String lines = "   +" + entry.added() + " -" + entry.removed()
                + (entry.from() == null ? "" : ", before " + Terminal.clean(entry.from()));
        String note = entry.commit().parents().size() > 1 ? "   merge" : asked.isEmpty() ? "" : lines;
        terminal.line(CommitText.line(terminal, entry.commit()) + terminal.styled(Terminal.Style.QUIET, note));
    }
}
