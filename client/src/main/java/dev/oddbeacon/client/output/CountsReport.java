package dev.oddbeacon.client.output;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LinesAnswer.Facet;
import java.util.List;

/** Counts by repository, type, trait and folder. */
public final class CountsReport {
    private CountsReport() {}

    /** The object that {@code --format jsonl} prints. */
    record Counts(LinesAnswer.Counts counts, LinesAnswer.Facets facets) {}

    public static void print(Terminal terminal, LinesAnswer answer, boolean json) {
        if (json) {
            terminal.json(new Counts(answer.counts(), answer.facets()));
            return;
        }
        table(terminal, "repository", answer.facets().repository());
        table(terminal, "type", answer.facets().type());
        table(terminal, "trait", answer.facets().trait());
        table(terminal, "folder", answer.facets().folder());
    }

    private static void table(Terminal terminal, String title, List<Facet> facets) {
        if (facets.isEmpty()) {
            return;
        }
        int width = Math.max(
                title.length(),
                facets.stream().mapToInt(facet -> facet.value().length()).max().orElse(0));
        terminal.line(terminal.styled(
                Terminal.Style.QUIET, String.format("%-" + width + "s %9s %9s", title, "hits", "files")));
        facets.forEach(facet -> terminal.line(String.format(
                "%-" + width + "s %9s %9s",
                Terminal.clean(facet.value()),
                Amounts.number(facet.hits()),
                Amounts.number(facet.files()))));
        terminal.line("");
    }
}
