package dev.oddbeacon.client.output.hits;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.oddbeacon.api.LinesAnswer.Excerpt;
import dev.oddbeacon.api.LinesAnswer.FileHits;
import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.MarkedText;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.ResultFormat;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.Terminal;
import java.util.List;
import java.util.function.Function;

/**
 * A record for each hit, or each file that is shown without lines: {@code repository/path:line:column: text} as editors
 * read it, a JSON object, or a record of CSV.
 */
public final class HitRecords implements HitPrinter {
    /** @param line null for a file that is shown without lines */
    private record Found(FileHits file, Line line, List<Line> before, List<Line> after) {}

    /**
     * @param local the path that other programs can open, within a work tree; else null
     * @param line from 1
     * @param column of the first match, in UTF-16 units from 1
     * @param matches in UTF-16 units of the line, from 0
     * @param declares whether it declares what was found
     */
    record Hit(
            String repository,
            String branch,
            String commit,
            String path,
            @JsonInclude(JsonInclude.Include.NON_NULL) String local,
            int line,
            int column,
            String text,
            int textStart,
            List<Match> matches,
            boolean declares,
            List<String> before,
            List<String> after) {}

    /** A file that is shown without lines. */
    record FoundFile(
            String repository,
            String branch,
            String commit,
            String path,
            @JsonInclude(JsonInclude.Include.NON_NULL) String local,
            int hits) {}

    private static final Columns<Found> COLUMNS = new Columns<Found>()
            .add("repository", found -> found.file.repository())
            .add("branch", found -> found.file.branch())
            .add("commit", found -> found.file.commit())
            .add("path", found -> found.file.path())
            .add("line", ofLine(Line::number))
            .add("column", ofLine(HitRecords::column))
            .add("text", ofLine(Line::text));

    private final Names names;
    private final int context;
    private final ResultPrinter<Found> printer;

    /** @param context most lines before and after a hit that its JSON object holds */
    public HitRecords(Terminal terminal, ResultFormat format, Names names, int context) {
        this.names = names;
        this.context = context;
        this.printer = new ResultPrinter<>(terminal, format, COLUMNS, this::json, this::text);
    }

    @Override
    public void print(FileHits file) {
        if (file.excerpts().isEmpty()) {
            printer.print(new Found(file, null, List.of(), List.of()));
        }
        for (Excerpt excerpt : file.excerpts()) {
            List<Line> lines = excerpt.lines();
            for (int i = 0; i < lines.size(); i++) {
                if (!lines.get(i).matches().isEmpty()) {
                    printer.print(new Found(
                            file,
                            lines.get(i),
                            lines.subList(Math.max(0, i - context), i),
                            lines.subList(i + 1, Math.min(lines.size(), i + 1 + context))));
                }
            }
        }
    }

    private Object json(Found found) {
        FileHits file = found.file;
        Line line = found.line;
        String local = names.local(file.repository(), file.path()).orElse(null);
        return line == null
                ? new FoundFile(file.repository(), file.branch(), file.commit(), file.path(), local, file.hits())
                : new Hit(
                        file.repository(),
                        file.branch(),
                        file.commit(),
                        file.path(),
                        local,
                        line.number(),
                        column(line),
                        line.text(),
                        line.textStart(),
                        line.matches(),
                        line.declares(),
                        texts(found.before),
                        texts(found.after));
    }

    private void text(Terminal terminal, Found found) {
        String path = terminal.styled(
                Terminal.Style.PATH, Terminal.clean(names.of(found.file.repository(), found.file.path())));
        terminal.line(
                found.line == null
                        ? path
                        : path + ":" + found.line.number() + ":" + column(found.line) + ": "
                                + MarkedText.of(terminal, found.line));
    }

    private static Function<Found, Object> ofLine(Function<Line, ?> value) {
        return found -> found.line == null ? null : value.apply(found.line);
    }

    private static int column(Line line) {
        return line.matches().getFirst().start() + 1;
    }

    private static List<String> texts(List<Line> lines) {
        return lines.stream().map(Line::text).toList();
    }
}
