package dev.oddbeacon.server.search;

import dev.oddbeacon.api.AboutFile;
import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LeftOut;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.SecondLooks;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.files.FileSearch.PathReading;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.ExpressionPrinter;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Limits;
import dev.oddbeacon.core.search.LineAnswer;
import dev.oddbeacon.core.search.LineSearch;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.search.SymbolAnswer;
import dev.oddbeacon.core.search.SymbolQuery;
import dev.oddbeacon.core.search.SymbolSearch;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.exclusion.ExclusionSets;
import dev.oddbeacon.server.index.LiveIndex;
import dev.oddbeacon.server.index.Searches;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Operation;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/...} */
@RestController
@RequestMapping("/api/v1/search")
class SearchController {
    private static final Duration SECOND_LOOKS = Duration.ofMillis(90);
    private static final int NEAREST = 5;
    private static final Duration LEFT_OUT = Duration.ofSeconds(1);

    private final Settings settings;
    private final LiveIndex index;
    private final Asked asked;
    private final ExclusionSets sets;
    private final SearchPool pool;
    private final Superseded superseded;

    SearchController(Settings settings, LiveIndex index, Asked asked, ExclusionSets sets, Searches searches, Superseded superseded) {
        this.settings = settings;
        this.index = index;
        this.asked = asked;
        this.sets = sets;
        this.pool = searches.searches();
        this.superseded = superseded;
    }

    @Operation(summary = "Lines that match a text",
            description = "Each hit counts once for each repository, branch and path. An expression that asks for no text answers with files.")
    @RequestMapping(path = "/lines", method = {RequestMethod.GET, RequestMethod.POST})
    LinesAnswer lines(@ParameterObject LineParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        TextQuery text = parameters.textQuery();
        TextQuery.Understood understood = text.understand(parameters.takesUnfinished());
        Query query = parameters.within(asked.scope(within), understood.query());
        asked.check(query);
        CompiledQuery compiled = CompiledQuery.of(query, CaseMode.AUTO);
        Optional<Cursor> from = parameters.from().isEmpty() ? Optional.empty() : Optional.of(Cursor.parse(parameters.from()));
        LineSearch search = new LineSearch(compiled, parameters.most(), parameters.contextLines(), from.map(Cursor::position).orElse(LineAnswer.Position.START),
                parameters.countsExactly(), parameters.ordering(), parameters.show(), sets.current(), new Budget(settings.searchTime()));
        View view = index.view(from.map(Cursor::view));
        superseded.by(parameters.askerId(), search.budget());
        try {
            LineAnswer answer = search.run(view, pool);
            Optional<String> next = answer.next().map(position -> new Cursor(view.number(), position).toString());
            if (next.isPresent()) {
                index.keep(view);
            }
            return Answers.lines(text, ExpressionPrinter.print(query), understood.unfinished(), asked.state(query, compiled, view), view, answer, next, parameters.explains(), parameters.show() == LineSearch.Show.LINES_WITH_REGIONS, Answers.millisSince(start));
        } finally {
            superseded.ended(parameters.askerId(), search.budget());
            view.release();
        }
    }

    @Operation(summary = "Changed searches that would have found something", description = "For a search that found nothing. Takes at most a tenth of a second.")
    @RequestMapping(path = "/lines/second-looks", method = {RequestMethod.GET, RequestMethod.POST})
    SecondLooks secondLooks(@ParameterObject LineParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        TextQuery text = parameters.textQuery();
        View view = index.acquire();
        try {
            return Answers.secondLooks(new dev.oddbeacon.core.search.SecondLooks(text, asked.scope(within), sets.current(), SECOND_LOOKS).run(view, pool), sets.defaults(), Answers.millisSince(start));
        } finally {
            view.release();
        }
    }

    @Operation(summary = "What exclusion sets took away from a search", description = "Hits in files that a set left out, by set. Takes at most a second.")
    @RequestMapping(path = "/lines/left-out", method = {RequestMethod.GET, RequestMethod.POST})
    LeftOut leftOut(@ParameterObject LineParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        Query query = parameters.query();
        Scope scope = asked.scope(within);
        asked.check(scope.around(query));
        View view = index.acquire();
        try {
            List<dev.oddbeacon.core.search.LeftOut.BySet> found = new dev.oddbeacon.core.search.LeftOut(query, scope, sets.current(), LEFT_OUT).run(view, pool);
            return Answers.leftOut(found, sets.defaults(), Answers.millisSince(start));
        } finally {
            view.release();
        }
    }

    @Operation(summary = "Why a file is among the results of a search, or is not", description = "Each limit of the search, and the text, one by one.")
    @RequestMapping(path = "/lines/about", method = {RequestMethod.GET, RequestMethod.POST})
    AboutFile about(@RequestParam String repository, @RequestParam String path, @RequestParam(defaultValue = "") String rev,
            @ParameterObject LineParameters parameters, @ParameterObject ScopeParameters within) {
        Query query = parameters.query();
        Scope scope = asked.scope(within);
        asked.check(scope.around(query));
        asked.checkRepository(repository);
        View view = index.acquire();
        try {
            int rank = view.rank(repository, rev).orElseThrow(() -> new NotFoundException(rev.isEmpty() ? repository + " is not indexed yet." : rev + " of " + repository + " is not indexed. The page of repositories lists what is."));
            Branch branch = view.branch(rank);
            OptionalInt file = view.snapshot(rank).find(path);
            if (file.isEmpty()) {
                return new AboutFile(repository, branch.name(), path, false, nearest(view, branch, path), false, 0, "", Map.of(), List.of(), null);
            }
            return Answers.about(branch, path, new dev.oddbeacon.core.search.AboutFile(query, scope, sets.current(), sets::patterns).of(view, rank, file.getAsInt(), pool));
        } finally {
            view.release();
        }
    }

    /** Paths of files that are named alike. */
    private List<String> nearest(View view, Branch branch, String path) {
        Scope there = Scope.EVERYTHING.with(Scope.Part.REPO, List.of(branch.repository())).with(Scope.Part.BRANCH, List.of(branch.name()));
        FileSearch search = new FileSearch(path.substring(path.lastIndexOf('/') + 1), PathReading.FRAGMENTS, CaseMode.AUTO, there, FileSearch.Kind.FILE, FileSearch.Sizes.ANY, FileSearch.Sorting.by(FileSearch.Order.RELEVANCE), 0, NEAREST);
        return search.run(view, Limits.Exclusions.NONE, new Budget(settings.searchTime()), pool).page().stream().map(FileSearch.Found::path).toList();
    }

    @Operation(summary = "Files, or folders, by their path", description = "Skipped files are found as well. Without a text, all files of the scope.")
    @RequestMapping(path = "/files", method = {RequestMethod.GET, RequestMethod.POST})
    FilesAnswer files(@ParameterObject FileParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        Optional<Cursor> from = parameters.from().isEmpty() ? Optional.empty() : Optional.of(Cursor.parse(parameters.from()));
        FileSearch search = parameters.search(asked.scope(within), from.map(cursor -> cursor.position().hit()).orElse(0));
        Query query = search.query();
        asked.check(query);
        View view = index.view(from.map(Cursor::view));
        try {
            FileSearch.Answer answer = search.run(view, sets.current(), new Budget(settings.searchTime()), pool);
            Optional<String> next = answer.next().map(files -> new Cursor(view.number(), new LineAnswer.Position(0, files)).toString());
            if (next.isPresent()) {
                index.keep(view);
            }
            return Answers.files(search, ExpressionPrinter.print(query), asked.state(query, CompiledQuery.of(query, CaseMode.AUTO), view), view, answer, next, Answers.millisSince(start));
        } finally {
            view.release();
        }
    }

    @Operation(summary = "Symbols by their names: where they are declared, where they are used", description = "Declarations come first.")
    @RequestMapping(path = "/symbols", method = {RequestMethod.GET, RequestMethod.POST})
    SymbolsAnswer symbols(@ParameterObject SymbolParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        SymbolQuery query = parameters.query(asked.scope(within));
        asked.check(query.limits());
        Optional<Cursor> from = parameters.from().isEmpty() ? Optional.empty() : Optional.of(Cursor.parse(parameters.from()));
        SymbolSearch search = new SymbolSearch(query, query.role().orElse(parameters.symbolRole()), parameters.kinds(), from.map(cursor -> cursor.position().hit()).orElse(0), parameters.most(),
                parameters.countsExactly(), sets.current(), new Budget(settings.searchTime()));
        View view = index.view(from.map(Cursor::view));
        superseded.by(parameters.askerId(), search.budget());
        try {
            SymbolAnswer answer = search.run(view, pool);
            Optional<String> next = answer.next().map(passed -> new Cursor(view.number(), new LineAnswer.Position(0, passed)).toString());
            if (next.isPresent()) {
                index.keep(view);
            }
            return Answers.symbols(parameters, ExpressionPrinter.print(query.limits()), asked.state(query.limits(), CompiledQuery.of(query.limits(), CaseMode.AUTO), view), view, answer, next, Answers.millisSince(start));
        } finally {
            superseded.ended(parameters.askerId(), search.budget());
            view.release();
        }
    }
}
