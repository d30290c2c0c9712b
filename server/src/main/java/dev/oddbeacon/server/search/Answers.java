package dev.oddbeacon.server.search;

import dev.oddbeacon.api.AboutFile;
import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.Problem;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.LineAnswer;
import dev.oddbeacon.core.search.LeftOut;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.core.search.Scope.Part;
import dev.oddbeacon.core.search.SecondLooks;
import dev.oddbeacon.core.search.SymbolAnswer;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;

/** From the core's answers to the wire format. */
final class Answers {
    private Answers() {}

    static LinesAnswer lines(TextQuery text, String expression, Optional<Mistake> unfinished, LinesAnswer.IndexState state, View view, LineAnswer answer,
            Optional<String> next, boolean explains, boolean tellsRegions, double millis) {
        List<LinesAnswer.FileHits> files = answer.page().stream().map(file -> {
            Branch branch = view.branch(file.rank());
            String path = view.snapshot(file.rank()).path(file.file());
            return new LinesAnswer.FileHits(branch.repository(), branch.name(), branch.commit(), path, view.snapshot(file.rank()).type(file.file()), Traits.labels(view.snapshot(file.rank()).traits(file.file())), file.hits(),
                    file.relevance().map(relevance -> new LinesAnswer.Relevance(relevance.points(), relevance.reasons())).orElse(null),
                    file.excerpts().stream().map(excerpt -> excerpt(excerpt, tellsRegions)).toList());
        }).toList();
        return new LinesAnswer(
                new LinesAnswer.QueryEcho(text.text(), lower(text.reading()), lower(text.caseMode()), text.word(), expression,
                        unfinished.map(mistake -> new Problem.Mistake(mistake.message(), mistake.position(), mistake.length(), mistake.suggestion().orElse(null), true)).orElse(null)),
                state, answer.stopped().map(Answers::lower).orElse(null),
                new LinesAnswer.Counts(answer.hits(), answer.files(), answer.repositories(), answer.exact()), facets(answer.facets()), files, next.orElse(null), millis,
                explains ? explanation(answer.explanation()) : null);
    }

    private static LinesAnswer.Facets facets(LineAnswer.Facets facets) {
        return new LinesAnswer.Facets(facet(facets.repository()), facet(facets.type()), facet(facets.trait()), facet(facets.folder()),
                facets.spread().stream().map(part -> new LinesAnswer.Spread(part.repository(), part.folder(), part.files(), part.hits())).toList());
    }

    private static List<LinesAnswer.Facet> facet(List<LineAnswer.Share> shares) {
        return shares.stream().map(share -> new LinesAnswer.Facet(share.value(), share.files(), share.hits())).toList();
    }

    private static LinesAnswer.Explanation explanation(LineAnswer.Explanation explanation) {
        return new LinesAnswer.Explanation(explanation.plan(), explanation.segments(), explanation.lists(), explanation.postingsBytes(), explanation.candidates(),
                explanation.filesVerified(), explanation.bytesVerified(), explanation.stages().stream().map(stage -> new LinesAnswer.Stage(stage.name(), stage.millis())).toList());
    }

    static dev.oddbeacon.api.SecondLooks secondLooks(List<SecondLooks.Look> looks, List<String> defaults, double millis) {
        return new dev.oddbeacon.api.SecondLooks(looks.stream().map(look -> {
            TextQuery query = look.query();
            Scope scope = look.scope();
            return new dev.oddbeacon.api.SecondLooks.Look(look.change(), query.text(), lower(query.reading()), lower(query.caseMode()), query.word(),
                    new dev.oddbeacon.api.SecondLooks.Scope(scope.of(Part.REPO), scope.of(Part.LABEL), scope.of(Part.BRANCH), scope.of(Part.UNDER), scope.of(Part.NOT_UNDER),
                            scope.of(Part.TYPE), scope.of(Part.TRAIT), scope.of(Part.NOT_TRAIT), scope.of(Part.EXCEPT), defaults.stream().filter(name -> !scope.of(Part.EXCEPT).contains(name)).toList(), scope.of(Part.FILE), scope.of(Part.CHANGED_AFTER), scope.of(Part.CHANGED_BEFORE), scope.of(Part.REGION), scope.of(Part.NOT_REGION)),
                    look.hits(), look.files(), look.exact());
        }).toList(), millis);
    }

    static dev.oddbeacon.api.LeftOut leftOut(List<LeftOut.BySet> found, List<String> defaults, double millis) {
        return new dev.oddbeacon.api.LeftOut(found.stream().map(set -> new dev.oddbeacon.api.LeftOut.Set(set.name(), defaults.contains(set.name()), set.hits(), set.files(), set.exact())).toList(), millis);
    }

    static AboutFile about(Branch branch, String path, dev.oddbeacon.core.search.AboutFile.Answer answer) {
        return new AboutFile(branch.repository(), branch.name(), path, true, List.of(), answer.found(), answer.hits(), answer.type(), answer.traits(),
                answer.checks().stream().map(check -> new AboutFile.Check(check.limit(), check.holds(), check.why())).toList(),
                answer.nearest().map(line -> new AboutFile.Nearest(line.number(), line.text())).orElse(null));
    }

    static double millisSince(long start) {
        return Math.round((System.nanoTime() - start) / 10_000.0) / 100.0;
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static LinesAnswer.Excerpt excerpt(LineAnswer.Excerpt excerpt, boolean tellsRegions) {
        return new LinesAnswer.Excerpt(excerpt.lines().stream().map(line -> new LinesAnswer.Line(line.number(), line.text(), line.textStart(),
                matches(line.matches()), line.declares(), regions(line, tellsRegions))).toList(),
                excerpt.enclosing().map(around -> new LinesAnswer.Enclosing(around.name(), around.kind().label(), around.container(), around.line())).orElse(null));
    }

    private static int[] regions(LineAnswer.Line line, boolean told) {
        return told ? line.regions().stream().flatMapToInt(part -> IntStream.of(part.start(), part.end(), part.region().ordinal())).toArray() : null;
    }

    private static List<LinesAnswer.Match> matches(List<LineAnswer.Span> spans) {
        return spans.stream().map(span -> new LinesAnswer.Match(span.start(), span.end())).toList();
    }

    static FilesAnswer files(FileSearch search, String expression, LinesAnswer.IndexState state, View view, FileSearch.Answer answer, Optional<String> next, double millis) {
        List<FilesAnswer.File> files = answer.page().stream().map(found -> {
            Branch branch = view.branch(found.rank());
            SnapshotFile file = view.snapshot(found.rank()).file(found.file());
            List<LinesAnswer.Match> matches = matches(found.matches());
            return found.kind() == FileSearch.Kind.FOLDER
                    ? new FilesAnswer.File(branch.repository(), branch.name(), branch.commit(), found.path(), "folder", "", List.of(), 0, 0, branch.committed(), null, matches)
                    : new FilesAnswer.File(branch.repository(), branch.name(), branch.commit(), found.path(), "file", file.type(), Traits.labels(file.traits()), file.bytes(), file.lines(),
                            Instant.ofEpochSecond(view.lastChanges(found.rank()).seconds(found.file())), file.standing() == SnapshotFile.Standing.SEARCHED ? null : file.standing().reason(), matches);
        }).toList();
        FileSearch.Facets facets = answer.facets();
        return new FilesAnswer(new FilesAnswer.QueryEcho(search.text(), lower(search.reading()), expression), state, new FilesAnswer.Counts(answer.files(), answer.repositories(), true),
                new FilesAnswer.Facets(facet(facets.repository()), facet(facets.type()), facet(facets.trait())), files, next.orElse(null), millis);
    }

    static SymbolsAnswer symbols(SymbolParameters parameters, String expression, LinesAnswer.IndexState state, View view, SymbolAnswer answer, Optional<String> next, double millis) {
        List<SymbolsAnswer.Symbol> symbols = answer.page().stream().map(symbol -> {
            Branch branch = view.branch(symbol.rank());
            var snapshot = view.snapshot(symbol.rank());
            return new SymbolsAnswer.Symbol(symbol.name(), symbol.kind().map(Kind::label).orElse(null), symbol.container(), lower(symbol.role()), branch.repository(), branch.name(), branch.commit(),
                    snapshot.path(symbol.file()), snapshot.type(symbol.file()), Traits.labels(snapshot.traits(symbol.file())), symbol.line().number(), symbol.endLine(), symbol.column(), symbol.signature(),
                    symbol.line().text(), symbol.line().textStart(), matches(symbol.line().matches()));
        }).toList();
        LineAnswer.Facets facets = answer.facets();
        return new SymbolsAnswer(new SymbolsAnswer.QueryEcho(parameters.q(), lower(parameters.nameReading()), lower(parameters.symbolRole()), expression), state, answer.stopped().map(Answers::lower).orElse(null),
                new SymbolsAnswer.Counts(answer.symbols(), answer.files(), answer.repositories(), answer.exact()),
                new SymbolsAnswer.Facets(facet(answer.kinds()), facet(answer.roles()), facet(facets.repository()), facet(facets.type()), facet(facets.trait())),
                symbols, next.orElse(null), millis);
    }
}
