package dev.oddbeacon.client.output.hits;

import dev.oddbeacon.api.LinesAnswer.FileHits;
import dev.oddbeacon.client.output.Terminal;

/** The matched characters alone, a match a line: what counting and sorting programs want. */
public final class MatchedTexts implements HitPrinter {
    private final Terminal terminal;

    public MatchedTexts(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public void print(FileHits file) {
        file.excerpts()
                .forEach(excerpt -> excerpt.lines()
                        .forEach(line -> line.matches().forEach(match -> {
                            int start = Math.clamp(
                                    match.start() - line.textStart(),
                                    0,
                                    line.text().length());
                            int end = Math.clamp(
                                    match.end() - line.textStart(),
                                    start,
                                    line.text().length());
                            terminal.line(Terminal.clean(line.text().substring(start, end)));
                        })));
    }
}
