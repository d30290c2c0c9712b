package dev.oddbeacon.client;

import dev.oddbeacon.api.LinesAnswer.FileHits;
import java.util.Arrays;
import java.util.stream.Collectors;

/** A record for each hit, or each file that is shown without lines, as RFC 4180 has it; the first names the fields. */
final class CsvHits implements HitPrinter {
    private final Terminal terminal;

    CsvHits(Terminal terminal) {
        this.terminal = terminal;
        terminal.line(row("repository", "branch", "commit", "path", "line", "column", "text"));
    }

    @Override
    public void print(FileHits file) {
        if (file.excerpts().isEmpty()) {
            terminal.line(row(file.repository(), file.branch(), file.commit(), file.path(), "", "", ""));
        }
        file.excerpts().forEach(excerpt -> excerpt.lines().stream().filter(line -> !line.matches().isEmpty()).forEach(line -> terminal.line(row(file.repository(), file.branch(), file.commit(),
                file.path(), String.valueOf(line.number()), String.valueOf(line.matches().getFirst().start() + 1), line.text()))));
    }

    static String row(String... fields) {
        return Arrays.stream(fields).map(Terminal::clean).map(CsvHits::field).collect(Collectors.joining(","));
    }

    private static String field(String text) {
        boolean isQuoted = text.indexOf(',') >= 0 || text.indexOf('"') >= 0 || text.startsWith(" ") || text.endsWith(" ");
        return isQuoted ? '"' + text.replace("\"", "\"\"") + '"' : text;
    }
}
