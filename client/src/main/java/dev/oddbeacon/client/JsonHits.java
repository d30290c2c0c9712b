package dev.oddbeacon.client;

import dev.oddbeacon.api.LinesAnswer.FileHits;
import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.api.LinesAnswer.Match;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;

/** A JSON object for each hit. */
final class JsonHits implements HitPrinter {
    private final Terminal terminal;
    private final Names names;
    private final int context;

    JsonHits(Terminal terminal, Names names, int context) {
        this.terminal = terminal;
        this.names = names;
        this.context = context;
    }

    /**
     * @param local the path that other programs can open, within a work tree; else null
     * @param line from 1
     * @param column of the first match, in UTF-16 units from 1
     * @param matches in UTF-16 units of the line, from 0
     * @param declares whether it declares what was found
     */
    record Hit(String repository, String branch, String commit, String path, @JsonInclude(JsonInclude.Include.NON_NULL) String local, int line, int column, String text, int textStart, List<Match> matches, boolean declares,
            List<String> before, List<String> after) {}

    /** A file that is shown without lines. */
    record FoundFile(String repository, String branch, String commit, String path, @JsonInclude(JsonInclude.Include.NON_NULL) String local, int hits) {}

    @Override
    public void print(FileHits file) {
        if (file.excerpts().isEmpty()) {
            terminal.line(Service.JSON.writeValueAsString(new FoundFile(file.repository(), file.branch(), file.commit(), file.path(), names.local(file.repository(), file.path()).orElse(null), file.hits())));
        }
        file.excerpts().forEach(excerpt -> {
            List<Line> lines = excerpt.lines();
            for (int i = 0; i < lines.size(); i++) {
                Line line = lines.get(i);
                if (!line.matches().isEmpty()) {
                    terminal.line(Service.JSON.writeValueAsString(new Hit(file.repository(), file.branch(), file.commit(), file.path(), names.local(file.repository(), file.path()).orElse(null), line.number(),
                            line.matches().getFirst().start() + 1, line.text(), line.textStart(), line.matches(), line.declares(),
                            texts(lines.subList(Math.max(0, i - context), i)), texts(lines.subList(i + 1, Math.min(lines.size(), i + 1 + context))))));
                }
            }
        });
    }

    private static List<String> texts(List<Line> lines) {
        return lines.stream().map(Line::text).toList();
    }
}
