package dev.oddbeacon.client;

import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.api.SymbolsAnswer;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.stream.IntStream;

/** Answers of a service, made up. */
public final class Answers {
    public static final LinesAnswer.IndexState WHOLE = new LinesAnswer.IndexState(true, 5, 0, 0, List.of());
    static final String COMMIT = "0123456789abcdef0123456789abcdef01234567";
    static final CommitInfo.Person ADA = new CommitInfo.Person("Ada, of Quillhaven", "ada@quillhaven.example");
    private static final OffsetDateTime DAY = OffsetDateTime.parse("2026-03-01T08:00:00+01:00");

    private Answers() {}

    /** Hits "tide" on lines from {@code first} on, one in a file of its own. @param next the cursor, or null */
    public static LinesAnswer lines(LinesAnswer.IndexState index, int first, int count, long all, String next) {
        List<LinesAnswer.FileHits> files = IntStream.range(first, first + count)
                .mapToObj(i -> {
                    LinesAnswer.Line line =
                            new LinesAnswer.Line(i, "low tide, \"spring\"", 0, List.of(new Match(4, 8)), false);
                    return new LinesAnswer.FileHits(
                            "tidewatch",
                            "main",
                            COMMIT,
                            "gauge/" + i + ".py",
                            "python",
                            List.of(),
                            1,
                            null,
                            List.of(new LinesAnswer.Excerpt(List.of(line), null)));
                })
                .toList();
        return new LinesAnswer(
                new LinesAnswer.QueryEcho("tide", "plain", "auto", false, "tide", null),
                index,
                null,
                new LinesAnswer.Counts(all, (int) all, all == 0 ? 0 : 1, true),
                new LinesAnswer.Facets(List.of(), List.of(), List.of(), List.of(), List.of()),
                files,
                next,
                1,
                null);
    }

    static FilesAnswer files() {
        List<FilesAnswer.File> files = List.of(
                new FilesAnswer.File(
                        "tidewatch",
                        "main",
                        COMMIT,
                        "gauge/a,b.py",
                        "file",
                        "python",
                        List.of("test"),
                        1_234,
                        56,
                        Instant.parse("2026-03-01T07:00:00Z"),
                        null,
                        List.of()),
                new FilesAnswer.File(
                        "tidewatch",
                        "main",
                        COMMIT,
                        "gauge/\u001b[31m.py",
                        "file",
                        "python",
                        List.of(),
                        1,
                        1,
                        Instant.parse("2026-03-01T07:00:00Z"),
                        null,
                        List.of()));
        return new FilesAnswer(
                new FilesAnswer.QueryEcho("", "fragments", ""),
                WHOLE,
                new FilesAnswer.Counts(2, 1, true),
                new FilesAnswer.Facets(List.of(), List.of(), List.of()),
                files,
                null,
                1);
    }

    static SymbolsAnswer symbols() {
        SymbolsAnswer.Symbol symbol = new SymbolsAnswer.Symbol(
                "tideAt",
                null,
                "Gauge",
                "use",
                "tidewatch",
                "main",
                COMMIT,
                "gauge/a.py",
                "python",
                List.of(),
                7,
                7,
                5,
                "",
                "now = tideAt(x)",
                0,
                List.of(new Match(6, 12)),
                null);
        return new SymbolsAnswer(
                new SymbolsAnswer.QueryEcho("tideAt", "fragments", "use", ""),
                WHOLE,
                null,
                new SymbolsAnswer.Counts(1, 1, 1, true),
                new SymbolsAnswer.Facets(
                        List.of(),
                        List.of(new LinesAnswer.Facet("use", 1, 1)),
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of()),
                List.of(symbol),
                null,
                1);
    }

    static CommitInfo commit() {
        return new CommitInfo(
                "tidewatch",
                COMMIT,
                ADA,
                DAY,
                ADA,
                DAY,
                List.of(),
                "Raise the surge threshold",
                "Raise the surge threshold\n");
    }

    static CommitsAnswer commits() {
        List<CommitInfo.ChangedFile> files = List.of(
                new CommitInfo.ChangedFile("gauge/a.py", "changed", null, 3, 1, false),
                new CommitInfo.ChangedFile("gauge/b.py", "added", null, 4, 0, false));
        return new CommitsAnswer(
                new CommitsAnswer.QueryEcho("surge", "fragments", ""),
                new LinesAnswer.IndexState(false, 5, 1, 0, List.of()),
                new CommitsAnswer.Covered(900, 2, 0),
                null,
                new CommitsAnswer.Counts(1, 1, true),
                new CommitsAnswer.Facets(List.of(), List.of(), List.of(), null),
                List.of(new CommitsAnswer.Commit(commit(), List.of(), files, 2, List.of())),
                null,
                1);
    }
}
