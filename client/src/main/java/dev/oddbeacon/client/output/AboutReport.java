package dev.oddbeacon.client.output;

import dev.oddbeacon.api.AboutFile;
import java.util.stream.Collectors;

/** Why a file is among the results of a search, or is not. */
public final class AboutReport {
    private AboutReport() {}

    public static void print(Terminal terminal, AboutFile file) {
        String name = Terminal.clean(file.repository() + "/" + file.path()) + " on " + Terminal.clean(file.branch());
        if (!file.indexed()) {
            terminal.line(name + " is not in the index: there is no file of that path.");
            file.nearestPaths().forEach(path -> terminal.line("    perhaps " + Terminal.clean(path)));
            return;
        }
        String traits = file.traits().entrySet().stream()
                .map(trait -> trait.getKey() + " (" + Terminal.clean(trait.getValue()) + ")")
                .sorted()
                .collect(Collectors.joining(", "));
        terminal.line(terminal.styled(Terminal.Style.PATH, name)
                + (file.found() ? " is among the results." : " is not among the results."));
        terminal.line("    type " + file.type() + (traits.isEmpty() ? "" : "; " + traits));
        for (AboutFile.Check check : file.checks()) {
            String line = (check.holds() ? "    holds   " : "    FAILS   ") + Terminal.clean(check.limit()) + ": "
                    + Terminal.clean(check.why());
            terminal.line(check.holds() ? line : terminal.styled(Terminal.Style.PROBLEM, line));
        }
        if (file.nearest() != null) {
            terminal.line("    The nearest line is " + file.nearest().number() + ": "
                    + Terminal.clean(file.nearest().text().strip()));
        }
    }
}
