package dev.oddbeacon.client;

import dev.oddbeacon.api.Outline;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon outline}. */
@Command(name = "outline", mixinStandardHelpOptions = true, description = "Prints what a file declares.%n",
        footer = {"", "Examples:", "  oddbeacon outline berth-planner:src/main/java/quillhaven/berth/plan/BerthPlanner.java", "  oddbeacon outline tidewatch/tidewatch/stations.py --format jsonl"})
final class OutlineCommand implements Callable<Integer> {
    @Parameters(paramLabel = "REPO:PATH[@REV]", description = "The file; REPO/PATH, as results print it, is taken too. REV: an indexed branch or tag.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "An indexed branch or tag, where the path holds an @.")
    private String revision;

    @Option(names = "--format", paramLabel = "text|jsonl|csv", defaultValue = "text", description = "jsonl: a JSON object for each declaration; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        ShowCommand.FileName name = ShowCommand.FileName.parse(file, revision);
        Outline outline = service.get(Service.path("repositories", name.repository(), "outline"), new Service.Parameters().add("path", name.path()).add("rev", name.revision()), Outline.class);
        Terminal terminal = new Terminal(color);
        if (format == ResultFormat.CSV) {
            terminal.line(CsvHits.row("path", "line", "column", "end", "kind", "container", "name", "signature"));
        }
        outline.symbols().forEach(symbol -> print(terminal, outline, symbol));
        if (outline.language() == null) {
            Terminal.complain(name.path() + " has no outline: declarations of files of the type " + outline.type() + " are not known.");
        } else if (outline.total() > outline.symbols().size()) {
            Terminal.complain("the first " + outline.symbols().size() + " of " + outline.total() + " declarations.");
        }
        return outline.symbols().isEmpty() ? ClientMain.NOTHING_FOUND : ClientMain.FOUND;
    }

    private void print(Terminal terminal, Outline outline, Outline.Symbol symbol) {
        switch (format) {
            case JSONL -> terminal.line(Service.JSON.writeValueAsString(symbol));
            case CSV -> terminal.line(CsvHits.row(outline.path(), String.valueOf(symbol.line()), String.valueOf(symbol.column()), String.valueOf(symbol.endLine()), symbol.kind(), symbol.container(), symbol.name(),
                    symbol.signature()));
            case TEXT -> {
                String lines = String.format(Locale.ROOT, "%6d", symbol.line()) + (symbol.endLine() > symbol.line() ? "-" + symbol.endLine() : "");
                terminal.line(terminal.styled(Terminal.Style.QUIET, String.format("%-14s %-12s", lines, symbol.kind())) + "  ".repeat(symbol.depth())
                        + terminal.styled(Terminal.Style.PATH, Terminal.clean(symbol.name())) + rest(terminal, symbol));
            }
        }
    }

    /** What the declaration says besides its name. */
    private static String rest(Terminal terminal, Outline.Symbol symbol) {
        boolean saysMore = !symbol.signature().equals(symbol.name());
        return saysMore ? "   " + terminal.styled(Terminal.Style.QUIET, Terminal.clean(symbol.signature())) : "";
    }
}
