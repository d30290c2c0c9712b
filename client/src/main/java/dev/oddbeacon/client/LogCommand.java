package dev.oddbeacon.client;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.LogAnswer;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "log", mixinStandardHelpOptions = true, description = "Lists the commits that changed a file or folder, the newest first.%n",
        footer = {"", "Examples:", "  oddbeacon log tidewatch:tidewatch/stations.py", "  oddbeacon log berth-planner:src@main", "  oddbeacon log fare-gate"})
final class LogCommand implements Callable<Integer> {
    private static final int PAGE = 1_000;

    @Parameters(paramLabel = "REPO[:PATH][@REV]", description = "The file or folder, or the whole repository; REPO/PATH is taken too.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "A branch, tag or commit, where the path holds an @.")
    private String revision;

    @Option(names = "--no-follow", description = "Do not follow a renamed file to its path before.")
    private boolean noFollow;

    @Option(names = "--limit", paramLabel = "N|all", defaultValue = "50", converter = Limit.Converter.class, description = "Most commits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--format", paramLabel = "text|jsonl|csv", defaultValue = "text", description = "jsonl: a JSON object for each commit; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    /** A commit as a JSON object. */
    record Printed(@JsonUnwrapped CommitInfo commit, String path, String from, String change, int added, int removed) {}

    @Override
    public Integer call() {
        ShowCommand.FileName name = ShowCommand.FileName.parseAny(file, revision);
        Terminal terminal = new Terminal(color);
        if (format == ResultFormat.CSV) {
            terminal.line(CsvHits.row("repository", "commit", "authored", "author", "change", "path", "from", "added", "removed", "summary"));
        }
        long left = limit.most();
        String cursor = "0";
        int printed = 0;
        do {
            LogAnswer page = service.get(Service.path("repositories", name.repository(), "log"), new Service.Parameters().add("path", name.path()).add("rev", name.revision()).add("follow", !noFollow)
                    .add("limit", Math.min(left, PAGE)).add("cursor", cursor), LogAnswer.class);
            for (LogAnswer.Entry entry : page.entries()) {
                print(terminal, page.path(), entry);
                printed++;
            }
            left -= page.entries().size();
            cursor = page.next();
        } while (cursor != null && left > 0);
        if (cursor != null) {
            Terminal.complain("the first " + limit.most() + " commits; --limit all prints every one.");
        }
        return printed > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    private void print(Terminal terminal, String asked, LogAnswer.Entry entry) {
        CommitInfo commit = entry.commit();
        switch (format) {
            case JSONL -> terminal.line(Service.JSON.writeValueAsString(new Printed(commit, entry.path(), entry.from(), entry.change(), entry.added(), entry.removed())));
            case CSV -> terminal.line(CsvHits.row(commit.repository(), commit.id(), commit.authored().toString(), commit.author().name(), entry.change() == null ? "" : entry.change(), entry.path(),
                    entry.from() == null ? "" : entry.from(), String.valueOf(entry.added()), String.valueOf(entry.removed()), commit.summary()));
            case TEXT -> {
                String note = commit.parents().size() > 1 ? "   merge" : asked.isEmpty() ? "" : "   +" + entry.added() + " -" + entry.removed() + (entry.from() == null ? "" : ", before " + Terminal.clean(entry.from()));
                terminal.line(CommitText.line(terminal, commit) + terminal.styled(Terminal.Style.QUIET, note));
            }
        }
    }
}
