package dev.oddbeacon.client.output.hits;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LinesAnswer.Excerpt;
import dev.oddbeacon.api.LinesAnswer.FileHits;
import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.MarkedText;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Terminal;

/** Hits under the name of their file, with context: the form for reading. */
public final class GroupedHits implements HitPrinter {
    private final Terminal terminal;
    private final Names names;

    public GroupedHits(Terminal terminal, Names names) {
        this.terminal = terminal;
        this.names = names;
    }

    @Override
    public void print(FileHits file) {
        terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(names.of(file.repository(), file.path())))
                + terminal.styled(
                        Terminal.Style.QUIET,
                        "   " + (file.hits() > 0 ? Amounts.of(file.hits(), "hit") + " on " : "on ")
                                + Terminal.clean(file.branch())));
        if (file.excerpts().isEmpty()) {
            return; // found for what it lacks
        }
        boolean first = true;
        for (Excerpt excerpt : file.excerpts()) {
            if (!first && excerpt.lines().size() > 1) {
                terminal.line(terminal.styled(Terminal.Style.QUIET, "        \u22EF"));
            }
            if (excerpt.enclosing() != null && excerpt.lines().size() > 1) {
                terminal.line(terminal.styled(
                        Terminal.Style.QUIET, "          in " + Terminal.clean(qualified(excerpt.enclosing()))));
            }
            excerpt.lines().forEach(this::printLine);
            first = false;
        }
        long shown = file.excerpts().stream()
                .flatMap(excerpt -> excerpt.lines().stream())
                .filter(line -> !line.matches().isEmpty())
                .count();
        if (shown < file.hits()) {
            terminal.line(terminal.styled(
                    Terminal.Style.QUIET,
                    "        \u22EF " + Amounts.of(file.hits() - shown, "more hit") + " in this file"));
        }
        terminal.line("");
    }

    private static String qualified(LinesAnswer.Enclosing around) {
        return around.kind() + " " + (around.container().isEmpty() ? "" : around.container() + ".") + around.name();
    }

    private void printLine(Line line) {
        boolean hit = !line.matches().isEmpty();
        String number = String.format("%7d", line.number());
        terminal.line((hit ? number : terminal.styled(Terminal.Style.QUIET, number))
                + (hit ? terminal.styled(Terminal.Style.MATCH, line.declares() ? " \u25C6 " : " \u2502 ") : "   ")
                + MarkedText.of(terminal, line));
    }
}
