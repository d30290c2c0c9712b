package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Outline;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.options.IndexedFile;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code oddbeacon outline}. */
@Command(
        name = "outline",
        mixinStandardHelpOptions = true,
        description = "Prints the declarations of a file.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon outline berth-planner:src/main/java/quillhaven/berth/plan/BerthPlanner.java",
            "  oddbeacon outline tidewatch/tidewatch/stations.py --format jsonl"
        })
public final class OutlineCommand implements Callable<Integer> {
    @Mixin
    private IndexedFile file;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    private static Columns<Outline.Symbol> columns(String path) {
        return new Columns<Outline.Symbol>()
                .add("path", _ -> path)
                .add("line", Outline.Symbol::line)
                .add("column", Outline.Symbol::column)
                .add("end", Outline.Symbol::endLine)
                .add("kind", Outline.Symbol::kind)
                .add("container", Outline.Symbol::container)
                .add("name", Outline.Symbol::name)
                .add("signature", Outline.Symbol::signature);
    }

    @Override
    public Integer call() {
        FileName name = file.name();
        Outline outline = service.get(
                Service.path("repositories", name.repository(), "outline"),
                new Service.Parameters().add("path", name.path()).add("rev", name.revision()),
                Outline.class);
        outline.symbols().forEach(print.printer(columns(outline.path()), OutlineCommand::print)::print);
        if (outline.language() == null) {
            Terminal.complain(name.path() + " has no outline: declarations of files of the type " + outline.type()
                    + " are not known.");
        } else if (outline.total() > outline.symbols().size()) {
            Terminal.complain("the first " + outline.symbols().size() + " of " + outline.total() + " declarations.");
        }
        return ExitStatus.of(!outline.symbols().isEmpty());
    }

    private static void print(Terminal terminal, Outline.Symbol symbol) {
        String lines = String.format(Locale.ROOT, "%6d", symbol.line())
                + (symbol.endLine() > symbol.line() ? "-" + symbol.endLine() : "");
        terminal.line(terminal.styled(Terminal.Style.QUIET, String.format("%-14s %-12s", lines, symbol.kind()))
                + "  ".repeat(symbol.depth())
                + terminal.styled(Terminal.Style.PATH, Terminal.clean(symbol.name()))
                + rest(terminal, symbol));
    }

    /** The parts of a declaration besides its name. */
    private static String rest(Terminal terminal, Outline.Symbol symbol) {
        boolean saysMore = !symbol.signature().equals(symbol.name());
        return saysMore ? "   " + terminal.styled(Terminal.Style.QUIET, Terminal.clean(symbol.signature())) : "";
    }
}
