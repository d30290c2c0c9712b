package dev.oddbeacon.client.command;

import dev.oddbeacon.api.DiffAnswer;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.OutputFormat;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "diff",
        mixinStandardHelpOptions = true,
        description = "Prints what differs between two revisions, as a unified diff.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon diff tidewatch:tidewatch/stations.py v1.0 main",
            "  oddbeacon diff berth-planner main~5 main",
            "  oddbeacon diff fare-gate 3f2a9c1b   (what that commit changed)"
        })
public final class DiffCommand implements Callable<Integer> {
    @Parameters(
            index = "0",
            paramLabel = "REPO[:PATH]",
            description = "A file or folder, or the whole repository; REPO/PATH is taken too.")
    private String file;

    @Parameters(
            index = "1",
            paramLabel = "REV",
            description = "The revision before; given alone, the commit whose changes are wanted.")
    private String from;

    @Parameters(index = "2", arity = "0..1", paramLabel = "REV", description = "The revision after.")
    private String to;

    @Option(
            names = "--context",
            paramLabel = "N",
            defaultValue = "3",
            description = "Lines around each change (default: ${DEFAULT-VALUE}).")
    private int context;

    @Option(
            names = "--format",
            paramLabel = "text|jsonl",
            defaultValue = "text",
            description = "jsonl: a JSON object for each file (default: ${DEFAULT-VALUE}).")
    private OutputFormat format;

    @Option(
            names = "--color",
            paramLabel = "auto|always|never",
            defaultValue = "auto",
            description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        FileName name = FileName.parseAny(file, "");
        Service.Parameters parameters = new Service.Parameters()
                .add("from", to == null ? "" : from)
                .add("to", to == null ? from : to)
                .add("context", context);
        if (!name.path().isEmpty()) {
            parameters.add("path", name.path());
        }
        Terminal terminal = new Terminal(color);
        if (format != OutputFormat.TEXT) {
            DiffAnswer diff =
                    service.get(Service.path("repositories", name.repository(), "diff"), parameters, DiffAnswer.class);
            diff.files().forEach(terminal::json);
            if (diff.total() > diff.files().size()) {
                Terminal.complain("the first " + diff.files().size() + " of " + Amounts.of(diff.total(), "file")
                        + "; name a folder to see the rest.");
            }
            return ExitStatus.of(diff.total() > 0);
        }
        byte[] patch =
                service.bytes(Service.path("repositories", name.repository(), "diff"), parameters, "text/x-diff");
        if (Terminal.isInteractive()) {
            new String(patch, StandardCharsets.UTF_8).lines().forEach(line -> terminal.line(styled(terminal, line)));
        } else {
            Terminal.bytes(patch); // as it is, for programs that apply it
        }
        return ExitStatus.of(patch.length > 0);
    }

    private static String styled(Terminal terminal, String line) {
        String clean = Terminal.clean(line);
        boolean isName = line.startsWith("diff ") || line.startsWith("+++ ") || line.startsWith("--- ");
        return isName
                ? terminal.styled(Terminal.Style.PATH, clean)
                : line.startsWith("+")
                        ? terminal.styled(Terminal.Style.MATCH, clean)
                        : line.startsWith("-") || line.startsWith("@@")
                                ? terminal.styled(Terminal.Style.QUIET, clean)
                                : clean;
    }
}
