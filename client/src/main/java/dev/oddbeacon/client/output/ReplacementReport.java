package dev.oddbeacon.client.output;

import dev.oddbeacon.api.Replacement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Prints what a replacement would change: each match before and after, and what there is to know. */
public final class ReplacementReport {
    private ReplacementReport() {}

    public static void print(Terminal terminal, Replacement.Preview preview) {
        preview.files().forEach(file -> print(terminal, file));
        preview.left()
                .forEach(each -> Terminal.complain(
                        Terminal.clean(each.repository() + "/" + each.path()) + " stays: " + each.why()));
        if (preview.fileCount() > preview.files().size()) {
            Terminal.complain("the first " + preview.files().size() + " files are shown");
        }
        if (preview.symbol() != null) {
            tell(preview.symbol());
        }
        if (preview.outside() != null && preview.outside().hits() > 0) {
            Terminal.complain("it stands outside the scope as well, in "
                    + Amounts.of(preview.outside().hits(), "line"));
        }
        Terminal.complain(Amounts.of(preview.matches(), "match", "matches") + " in "
                + Amounts.of(preview.fileCount(), "file") + " would change"
                + (preview.renamed() > 0 ? ", " + Amounts.of(preview.renamed(), "file") + " renamed" : "")
                + "; --patch writes it");
    }

    private static void print(Terminal terminal, Replacement.File file) {
        String name = Terminal.clean(file.repository() + "/" + file.path());
        terminal.line(terminal.styled(Terminal.Style.PATH, name)
                + (file.newPath() == null ? "" : "  becomes " + Terminal.clean(file.newPath())));
        Map<String, List<Replacement.Change>> byLine = new LinkedHashMap<>();
        for (Replacement.Change change : file.changes()) {
            byLine.computeIfAbsent(change.line() + ": " + change.before(), _ -> new ArrayList<>())
                    .add(change);
        }
        byLine.values().forEach(changes -> print(terminal, changes));
    }

    /** The changes of a line, or of several where a match goes beyond its line. */
    private static void print(Terminal terminal, List<Replacement.Change> changes) {
        terminal.line(changes.stream()
                .map(change -> change.line() + ":" + change.column() + (change.applied() ? "" : " left as it is"))
                .collect(Collectors.joining("  ", "  ", "")));
        String before = changes.getFirst().before();
        before.lines().forEach(line -> terminal.line("    - " + Terminal.clean(line)));
        if (changes.stream().anyMatch(Replacement.Change::applied)) {
            after(before, changes).lines().forEach(line -> terminal.line("    + " + Terminal.clean(line)));
        }
        changes.stream()
                .flatMap(change -> change.warnings().stream())
                .distinct()
                .forEach(warning -> terminal.line(terminal.styled(Terminal.Style.PROBLEM, "    ! " + warning)));
    }

    /** The line with all that stands instead in it; of one that is shown in part, the first alone. */
    private static String after(String before, List<Replacement.Change> changes) {
        StringBuilder after = new StringBuilder(before);
        for (Replacement.Change change : changes.reversed()) {
            int start = change.column() - 1;
            int end = start + change.match().length();
            if (end > before.length() || before.endsWith("…")) {
                return changes.getFirst().after();
            }
            if (change.applied()) {
                after.replace(start, end, change.with());
            }
        }
        return after.toString();
    }

    private static void tell(Replacement.Symbol symbol) {
        if (symbol.declarations() == 0) {
            Terminal.complain("it is declared nowhere that you see; its uses are found by name only");
            return;
        }
        Terminal.complain("it is declared " + Amounts.of(symbol.declarations(), "time") + ", in "
                + Terminal.clean(String.join(", ", symbol.containers())) + "; "
                + (symbol.sure() == symbol.uses()
                        ? "all " + symbol.uses() + " uses are surely of it"
                        : "of " + Amounts.of(symbol.uses(), "use") + " " + symbol.sure()
                                + (symbol.sure() == 1 ? " is" : " are") + " surely of it, " + symbol.likely()
                                + " likely")
                + (symbol.others() > 0
                        ? "; " + Amounts.of(symbol.others(), "use") + " of another with this name "
                                + (symbol.others() == 1 ? "stays" : "stay")
                        : ""));
    }
}
