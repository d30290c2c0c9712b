package dev.oddbeacon.client.output;

import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.api.SymbolsAnswer.Symbol;

/**
 * Places of symbols as text: under the names of their files for people; a line each, as hits are, for other programs.
 */
public final class SymbolPrinter {
    private final Terminal terminal;
    private final Names names;
    private final boolean grouped;
    private String file = "";

    public SymbolPrinter(Terminal terminal, Names names, boolean grouped) {
        this.terminal = terminal;
        this.names = names;
        this.grouped = grouped;
    }

    public void print(Symbol symbol) {
        String path = Terminal.clean(names.of(symbol.repository(), symbol.path()));
        boolean declares = symbol.role().equals("declaration");
        Line line = new Line(symbol.line(), symbol.text(), symbol.textStart(), symbol.matches(), declares);
        if (!grouped) {
            terminal.line(terminal.styled(Terminal.Style.PATH, path) + ":" + symbol.line() + ":" + symbol.column()
                    + ": " + MarkedText.of(terminal, line));
            return;
        }
        if (!path.equals(file)) {
            terminal.line((file.isEmpty() ? "" : "\n") + terminal.styled(Terminal.Style.PATH, path));
            file = path;
        }
        String around = symbol.container().isEmpty() ? "" : "   in " + Terminal.clean(symbol.container());
        terminal.line(String.format("%7d", symbol.line())
                + terminal.styled(Terminal.Style.MATCH, declares ? " \u25C6 " : " \u2502 ")
                + terminal.styled(Terminal.Style.QUIET, String.format("%-12s", declares ? symbol.kind() : use(symbol)))
                + MarkedText.of(terminal, stripped(line))
                + terminal.styled(Terminal.Style.QUIET, around));
    }

    private static String use(Symbol symbol) {
        return switch (symbol.certainty()) {
            case "likely" -> "likely use";
            case "by-name" -> "name only";
            case null, default -> "use";
        };
    }

    /** Without blanks at the start: the column of kinds stands there. */
    private static Line stripped(Line line) {
        int blanks = line.textStart() > 0
                ? 0
                : line.text().length() - line.text().stripLeading().length();
        return new Line(
                line.number(),
                line.text().substring(blanks).stripTrailing(),
                line.textStart() + blanks,
                line.matches(),
                line.declares());
    }
}
