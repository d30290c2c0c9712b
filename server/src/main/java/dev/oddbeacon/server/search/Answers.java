package dev.oddbeacon.server.search;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.FileSearch;
import dev.oddbeacon.core.search.LineAnswer;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.FileTypes;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** From the core's answers to the wire format. */
final class Answers {
    private Answers() {}

    static LinesAnswer lines(TextQuery query, LinesAnswer.IndexState state, View view, LineAnswer answer, Optional<String> next, double millis) {
        List<LinesAnswer.FileHits> files = answer.page().stream().map(file -> {
            Branch branch = view.branch(file.rank());
            String path = view.snapshot(file.rank()).path(file.file());
            return new LinesAnswer.FileHits(branch.repository(), branch.name(), branch.commit(), path, FileTypes.of(path), file.hits(),
                    file.excerpts().stream().map(Answers::excerpt).toList());
        }).toList();
        return new LinesAnswer(
                new LinesAnswer.QueryEcho(query.text(), lower(query.reading()), lower(query.caseMode()), query.word()), state,
                answer.stopped().map(Answers::lower).orElse(null),
                new LinesAnswer.Counts(answer.hits(), answer.files(), answer.repositories(), answer.exact()),
                new LinesAnswer.Facets(byRepository(view, answer)), files, next.orElse(null), millis);
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static LinesAnswer.Excerpt excerpt(LineAnswer.Excerpt excerpt) {
        return new LinesAnswer.Excerpt(excerpt.lines().stream().map(line -> new LinesAnswer.Line(line.number(), line.text(), line.textStart(),
                matches(line.matches()))).toList());
    }

    private static List<LinesAnswer.Match> matches(List<LineAnswer.Span> spans) {
        return spans.stream().map(span -> new LinesAnswer.Match(span.start(), span.end())).toList();
    }

    private static List<LinesAnswer.Facet> byRepository(View view, LineAnswer answer) {
        Map<String, LinesAnswer.Facet> facets = new TreeMap<>();
        answer.byRank().forEach((rank, share) -> {
            String repository = view.branch(rank).repository();
            facets.merge(repository, new LinesAnswer.Facet(repository, share.files(), share.hits()),
                    (a, b) -> new LinesAnswer.Facet(repository, a.files() + b.files(), a.hits() + b.hits()));
        });
        return facets.values().stream().sorted(Comparator.comparingLong(LinesAnswer.Facet::hits).reversed().thenComparing(LinesAnswer.Facet::value)).toList();
    }

    static FilesAnswer files(LinesAnswer.IndexState state, View view, FileSearch.Answer answer, double millis) {
        List<FilesAnswer.File> files = answer.page().stream().map(found -> {
            Branch branch = view.branch(found.rank());
            SnapshotFile file = view.snapshot(found.rank()).file(found.file());
            return new FilesAnswer.File(branch.repository(), branch.name(), branch.commit(), file.path(), FileTypes.of(file.path()), file.bytes(),
                    file.lines(), file.standing() == SnapshotFile.Standing.SEARCHED ? null : file.standing().reason(), matches(found.matches()));
        }).toList();
        return new FilesAnswer(state, new FilesAnswer.Counts(answer.files(), answer.repositories(), true), files, millis);
    }
}
