package dev.oddbeacon.client.worktree;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.wire.LinePages;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;

/** A search for lines in a work tree as it is now. */
public final class LinesHere {
    /** In place of a cursor, where a page is full before the service was asked for it. */
    static final String MORE = "more";

    private LinesHere() {}

    /**
     * The first page: what changed here, then what the service has.
     *
     * @param parameters of the search, by name
     * @param most hits of the page
     * @param service asks it, without the files that changed, for so many hits of the answer; false asks for counts alone
     */
    public static LinesAnswer first(
            ChangedFiles changed,
            Map<String, List<String>> parameters,
            int most,
            BiFunction<Integer, Boolean, LinesAnswer> service) {
        Optional<Scope> scope = changed.scope(parameters);
        if (scope.isEmpty()) {
            return service.apply(most, true);
        }
        Values values = new Values(parameters);
        Query text = new TextQuery(
                        values.text("q"),
                        values.oneOf(Reading.values(), "reading"),
                        values.oneOf(CaseMode.values(), "case"),
                        values.isTrue("word"))
                .understand(false)
                .query();
        LineSearch.Show show = switch (values.text("only")) {
            case "files" -> LineSearch.Show.FILES;
            case "counts" -> LineSearch.Show.COUNTS;
            default -> LineSearch.Show.LINES;
        };
        LineAnswer here = new LineSearch(
                        CompiledQuery.of(
                                scope.get().around(values.isTrue("without") ? new Query.Not(text) : text),
                                CaseMode.AUTO),
                        most,
                        values.number("context", 0),
                        LineAnswer.Position.START,
                        true,
                        values.oneOf(LineSearch.Order.values(), "order"),
                        show,
                        values.number("perFile", LineSearch.ALL),
                        values.inHand())
                .run(changed.context());
        List<LinesAnswer.FileHits> files = LinePages.files(changed.view(), here, false);
        int left = most - shown(files);
        LinesAnswer there = service.apply(Math.max(1, left), left > 0);
        List<LinesAnswer.FileHits> all = new ArrayList<>(files);
        all.addAll(left > 0 ? there.files() : List.of());
        boolean isCut = left <= 0 && (there.counts().files() > 0 || here.hits() > most);
        return new LinesAnswer(
                there.query(),
                there.index(),
                there.stopped(),
                new LinesAnswer.Counts(
                        there.counts().hits() + here.hits(),
                        there.counts().files() + here.files(),
                        Math.max(there.counts().repositories(), here.repositories()),
                        there.counts().exact()),
                Shares.lines(there.facets(), LinePages.facets(here)),
                all,
                isCut ? MORE : there.next(),
                there.tookMillis(),
                there.explanation());
    }

    /** Hits of files; a file without lines counts for one. */
    private static int shown(List<LinesAnswer.FileHits> files) {
        return files.stream()
                .mapToInt(file -> Math.max(1, (int) file.excerpts().stream()
                        .flatMap(excerpt -> excerpt.lines().stream())
                        .filter(line -> !line.matches().isEmpty())
                        .count()))
                .sum();
    }
}
