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
     * @param column of the first match, from 1, in UTF-16 units unless others are asked for
     * @param matches of the line, from 0, in the same units
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

    /** Reads a whole line of a file of which a hit holds a part. */
    public interface WholeLines {
        String read(FileHits file, int number);
    }

    private final PositionEncoding encoding;
    private final WholeLines wholeLines;
    private final Names names;
    private final int context;
    private final ResultPrinter<Found> printer;

    /** @param context most lines before and after a hit that its JSON object holds */
    public HitRecords(
            Terminal terminal,
            ResultFormat format,
            Names names,
            int context,
            PositionEncoding encoding,
            WholeLines wholeLines) {
        this.names = names;
        this.context = context;
        this.encoding = encoding;
        this.wholeLines = wholeLines;
        this.printer = new ResultPrinter<>(terminal, format, columns(), this::json, this::text);
    }

    private Columns<Found> columns() {
        return new Columns<Found>()
                .add("repository", found -> found.file.repository())
                .add("branch", found -> found.file.branch())
                .add("commit", found -> found.file.commit())
                .add("path", found -> found.file.path())
                .add("line", found -> found.line == null ? null : found.line.number())
                .add("column", found -> found.line == null ? null : column(found))
                .add("text", found -> found.line == null ? null : found.line.text());
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
                        column(found),
                        line.text(),
                        line.textStart(),
                        matches(found),
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
                        : path + ":" + found.line.number() + ":" + column(found) + ": "
                                + MarkedText.of(terminal, found.line));
    }

    private int column(Found found) {
        return matches(found).getFirst().start() + 1;
    }

    private List<Match> matches(Found found) {
        List<Match> matches = found.line.matches();
        if (encoding == PositionEncoding.UTF_16) {
            return matches;
        }
        String line =
                found.line.textStart() == 0 ? found.line.text() : wholeLines.read(found.file, found.line.number());
        return matches.stream()
                .map(match -> new Match(encoding.place(line, match.start()), encoding.place(line, match.end())))
                .toList();
    }

    private static List<String> texts(List<Line> lines) {
        return lines.stream().map(Line::text).toList();
    }
}
