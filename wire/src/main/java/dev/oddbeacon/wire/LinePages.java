package dev.oddbeacon.wire;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Traits;
import java.util.List;
import java.util.stream.IntStream;

/** Lines that were found, as answers tell them. */
public final class LinePages {
    private LinePages() {}

    /** The files of a page. @param tellsRegions whether lines say what of them is a comment or a string */
    public static List<LinesAnswer.FileHits> files(View view, LineAnswer answer, boolean tellsRegions) {
        return answer.page().stream()
                .map(file -> {
                    Branch branch = view.branch(file.branchNumber());
                    var snapshot = view.snapshot(file.branchNumber());
                    return new LinesAnswer.FileHits(
                            branch.repository(),
                            branch.name(),
                            branch.commit(),
                            snapshot.path(file.file()),
                            snapshot.type(file.file()),
                            Traits.labels(snapshot.traits(file.file())),
                            file.hits(),
                            file.relevance()
                                    .map(relevance ->
                                            new LinesAnswer.Relevance(relevance.points(), relevance.reasons()))
                                    .orElse(null),
                            file.excerpts().stream()
                                    .map(excerpt -> excerpt(excerpt, tellsRegions))
                                    .toList());
                })
                .toList();
    }

    /** Where the hits of an answer are. */
    public static LinesAnswer.Facets facets(LineAnswer answer) {
        Facets facets = answer.facets();
        return new LinesAnswer.Facets(
                Parts.facet(facets.repository()),
                Parts.facet(facets.type()),
                Parts.facet(facets.trait()),
                Parts.facet(facets.folder()),
                facets.spread().stream()
                        .map(part ->
                                new LinesAnswer.Spread(part.repository(), part.folder(), part.files(), part.hits()))
                        .toList());
    }

    private static LinesAnswer.Excerpt excerpt(Excerpt excerpt, boolean tellsRegions) {
        return new LinesAnswer.Excerpt(
                excerpt.lines().stream()
                        .map(line -> new LinesAnswer.Line(
                                line.number(),
                                line.text(),
                                line.textStart(),
                                Parts.matches(line.matches()),
                                line.declares(),
                                regions(line, tellsRegions)))
                        .toList(),
                excerpt.enclosing()
                        .map(around -> new LinesAnswer.Enclosing(
                                around.name(), around.kind().label(), around.container(), around.line()))
                        .orElse(null));
    }

    private static int[] regions(Excerpt.Line line, boolean told) {
        return told
                ? line.regions().stream()
                        .flatMapToInt(part -> IntStream.of(
                                part.start(), part.end(), part.region().code()))
                        .toArray()
                : null;
    }
}
