package dev.oddbeacon.client;

import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.api.FileContent;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "blame", mixinStandardHelpOptions = true, description = "Prints a file with where each of its lines comes from.%n",
        footer = {"", "Examples:", "  oddbeacon blame tidewatch:tidewatch/stations.py", "  oddbeacon blame fare-gate:gate/fare.go@main --ignore-space"})
final class BlameCommand implements Callable<Integer> {
    private static final int DIGITS = 10;
    private static final int LONGEST_NAME = 18;

    @Parameters(paramLabel = "REPO:PATH[@REV]", description = "The file; REPO/PATH, as results print it, is taken too.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "A branch, tag or commit, where the path holds an @.")
    private String revision;

    @Option(names = "--ignore-space", description = "White space counts nowhere.")
    private boolean ignoreSpace;

    @Option(names = "--all-commits", description = "Do not look through the commits that .git-blame-ignore-revs lists.")
    private boolean allCommits;

    @Option(names = "--format", paramLabel = "text|jsonl", defaultValue = "text", description = "jsonl: a JSON object for lines that come from the same place (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        ShowCommand.FileName name = ShowCommand.FileName.parse(file, revision);
        Service.Parameters parameters = new Service.Parameters().add("path", name.path()).add("rev", name.revision()).add("ignoreSpace", ignoreSpace).add("ignoreListed", !allCommits);
        BlameAnswer blame = service.get(Service.path("repositories", name.repository(), "blame"), parameters, BlameAnswer.class);
        Terminal terminal = new Terminal(color);
        if (format == ResultFormat.JSONL) {
            blame.origins().forEach(origin -> terminal.line(Service.JSON.writeValueAsString(origin)));
            return ClientMain.FOUND;
        }
        if (format == ResultFormat.CSV) {
            terminal.line(CsvHits.row("fromLine", "toLine", "commit", "authored", "author", "path", "line", "summary"));
            blame.origins().forEach(origin -> terminal.line(CsvHits.row(String.valueOf(origin.fromLine()), String.valueOf(origin.toLine()), origin.commit(), origin.authored().toString(), origin.author().name(), origin.path(),
                    String.valueOf(origin.line()), origin.summary())));
            return ClientMain.FOUND;
        }
        FileContent content = service.get(Service.path("repositories", name.repository(), "file"), new Service.Parameters().add("path", name.path()).add("rev", blame.revision()), FileContent.class);
        print(terminal, blame, (content.text() == null ? "" : content.text()).split("\n", -1));
        return ClientMain.FOUND;
    }

    /** What stands before the lines is told once for those that come from the same place. */
    private static void print(Terminal terminal, BlameAnswer blame, String[] lines) {
        List<BlameAnswer.Origin> origins = blame.origins();
        String before = "";
        for (BlameAnswer.Origin origin : origins) {
            String person = Terminal.clean(origin.author().name());
            String told = String.format("%s %s %-" + LONGEST_NAME + "s", origin.authored().toLocalDate(), origin.commit().substring(0, DIGITS), person.substring(0, Math.min(LONGEST_NAME, person.length())));
            for (int line = origin.fromLine(); line <= origin.toLine(); line++) {
                boolean isNew = !Terminal.isInteractive() || line == origin.fromLine() && !told.equals(before);
                String margin = isNew ? told : " ".repeat(told.length());
                terminal.line(terminal.styled(Terminal.Style.QUIET, margin + String.format("%6d ", line)) + (line <= lines.length ? Terminal.clean(lines[line - 1]) : ""));
            }
            before = told;
        }
    }
}
