package dev.oddbeacon.client.command;

import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "blame",
        mixinStandardHelpOptions = true,
        description = "Prints a file with the origin of each line.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon blame tidewatch:tidewatch/stations.py",
            "  oddbeacon blame fare-gate:gate/fare.go@main --ignore-space"
        })
public final class BlameCommand implements Callable<Integer> {
    private static final int LONGEST_NAME = 18;

    @Parameters(paramLabel = "REPO:PATH[@REV]", description = "The file; REPO/PATH, as results print it, is taken too.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "A branch, tag or commit, where the path holds an @.")
    private String revision;

    @Option(names = "--ignore-space", description = "White space counts nowhere.")
    private boolean ignoreSpace;

    @Option(names = "--all-commits", description = "Do not look through the commits that .git-blame-ignore-revs lists.")
    private boolean allCommits;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    private static final Columns<BlameAnswer.Origin> COLUMNS = new Columns<BlameAnswer.Origin>()
            .add("fromLine", BlameAnswer.Origin::fromLine)
            .add("toLine", BlameAnswer.Origin::toLine)
            .add("commit", BlameAnswer.Origin::commit)
            .add("authored", BlameAnswer.Origin::authored)
            .add("author", origin -> origin.author().name())
            .add("path", BlameAnswer.Origin::path)
            .add("line", BlameAnswer.Origin::line)
            .add("summary", BlameAnswer.Origin::summary);

    /** The prefix of the lines printed last. */
    private String told = "";

    @Override
    public Integer call() {
        FileName name = FileName.parse(file, revision);
        Service.Parameters parameters = new Service.Parameters()
                .add("path", name.path())
                .add("rev", name.revision())
                .add("ignoreSpace", ignoreSpace)
                .add("ignoreListed", !allCommits);
        BlameAnswer blame =
                service.get(Service.path("repositories", name.repository(), "blame"), parameters, BlameAnswer.class);
        String[] lines = print.isText() ? lines(name, blame.revision()) : new String[0];
        blame.origins().forEach(print.printer(COLUMNS, (terminal, origin) -> print(terminal, origin, lines))::print);
        return ExitStatus.FOUND;
    }

    private String[] lines(FileName name, String revision) {
        FileContent content = service.get(
                Service.path("repositories", name.repository(), "file"),
                new Service.Parameters().add("path", name.path()).add("rev", revision),
                FileContent.class);
        return (content.text() == null ? "" : content.text()).split("\n", -1);
    }

    /** The prefix is printed once for lines in a row with the same origin. */
    private void print(Terminal terminal, BlameAnswer.Origin origin, String[] lines) {
        String person = Terminal.clean(origin.author().name());
        String tells = String.format(
                "%s %s %-" + LONGEST_NAME + "s",
                origin.authored().toLocalDate(),
                Terminal.shortened(origin.commit()),
                person.substring(0, Math.min(LONGEST_NAME, person.length())));
        for (int line = origin.fromLine(); line <= origin.toLine(); line++) {
            boolean isNew = !Terminal.isInteractive() || line == origin.fromLine() && !tells.equals(told);
            String margin = isNew ? tells : " ".repeat(tells.length());
            terminal.line(terminal.styled(Terminal.Style.QUIET, margin + String.format("%6d ", line))
                    + (line <= lines.length ? Terminal.clean(lines[line - 1]) : ""));
        }
        told = tells;
    }
}
