package dev.oddbeacon.client.output.hits;

import dev.oddbeacon.api.LinesAnswer.FileHits;
import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.client.output.SarifLog;
import java.util.List;
import java.util.function.Consumer;

/** Keeps hits for a log of all; a file that is shown without lines is one. */
public record SarifHits(Consumer<SarifLog.Found> log) implements HitPrinter {
    @Override
    public void print(FileHits file) {
        List<Line> hits = file.excerpts().stream()
                .flatMap(excerpt -> excerpt.lines().stream())
                .filter(line -> !line.matches().isEmpty())
                .toList();
        if (hits.isEmpty()) {
            log.accept(SarifLog.Found.of(result(file, null, null)));
        }
        for (Line line : hits) {
            Match first = line.matches().getFirst();
            log.accept(
                    new SarifLog.Found(result(file, line.number(), line.text()), first.start() + 1, first.end() + 1));
        }
    }

    private static Result result(FileHits file, Integer line, String text) {
        return new Result(file.repository(), file.branch(), file.commit(), file.path(), line, null, text);
    }
}
