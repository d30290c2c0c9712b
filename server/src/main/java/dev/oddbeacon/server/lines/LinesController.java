package dev.oddbeacon.server.lines;

import dev.oddbeacon.api.AboutFile;
import dev.oddbeacon.api.LeftOut;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.api.SecondLooks;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.files.FileSearch.PathReading;
import dev.oddbeacon.core.lines.DividedLines;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.lines.LinesFound;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.load.SearchThreadsOnly;
import dev.oddbeacon.server.machines.Sharing;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/lines} and what is asked about such a search. */
@RestController
@RequestMapping(LinesController.PATH)
class LinesController {
    static final String PATH = "/api/v1/search/lines";
    private static final Duration LEFT_OUT = Duration.ofSeconds(1);
    private static final int NEAREST = 5;

    private final Contexts contexts;
    private final Sharing sharing;
    private final Settings settings;

    LinesController(Contexts contexts, Sharing sharing, Settings settings) {
        this.contexts = contexts;
        this.sharing = sharing;
        this.settings = settings;
    }

    @Operation(
            summary = "Lines that match a text",
            description =
                    "Each hit counts once for each repository, branch and path. An expression that asks for no text answers with files.")
    @RequestMapping(method = {RequestMethod.GET, RequestMethod.POST})
    @SearchThreadsOnly
    LinesAnswer lines(
            Caller caller,
            @ParameterObject LineParameters parameters,
            ScopeParameters within,
            HttpServletRequest request) {
        long start = System.nanoTime();
        TextQuery text = parameters.textQuery();
        TextQuery.Understood understood = text.understand(parameters.takesUnfinished());
        Optional<Cursor> from = parameters.from(Cursor.Kind.LINES);
        try (CallerContext context = contexts.open(caller, from, parameters.askerId())) {
            Query query = parameters.within(context.scope(within), understood.query());
            context.check(query);
            LineSearch search = parameters.search(query, from, context);
            LineAnswer answer = parameters.explains()
                    ? search.run(context.search())
                    : sharing.run(new DividedLines(search, query), PATH, LinesFound.class, context.search(), request);
            String next = answer.next()
                    .map(position -> context.cursor(Cursor.Kind.LINES, position.place(), position.hit()))
                    .orElse(null);
            return LineAnswers.lines(
                    text,
                    ExpressionPrinter.print(query),
                    understood.unfinished(),
                    context.state(query),
                    context.view(),
                    answer,
                    next,
                    parameters.explains(),
                    parameters.show() == LineSearch.Show.LINES_WITH_REGIONS,
                    Parameters.millisSince(start));
        }
    }

    /** The part of another machine's search for lines. */
    @Hidden
    @PostMapping(Sharing.PART)
    @SearchThreadsOnly
    LinesFound part(Caller caller, LineParameters parameters, ScopeParameters within, HttpServletRequest request) {
        try (CallerContext context = contexts.open(caller, Optional.empty(), parameters.askerId())) {
            Query query = context.scope(within).around(parameters.query());
            LineSearch search = parameters.search(query, Optional.empty(), context);
            return sharing.part(new DividedLines(search, query), context.search(), request);
        }
    }

    @Operation(
            summary = "Changed searches that would have found something",
            description = "For a search that found nothing. Takes at most a tenth of a second.")
    @RequestMapping(
            path = "/second-looks",
            method = {RequestMethod.GET, RequestMethod.POST})
    @SearchThreadsOnly
    SecondLooks secondLooks(Caller caller, @ParameterObject LineParameters parameters, ScopeParameters within) {
        long start = System.nanoTime();
        TextQuery text = parameters.textQuery();
        try (CallerContext context = contexts.open(caller)) {
            var looks = new dev.oddbeacon.core.lines.SecondLooks(text, context.scope(within))
                    .run(context.search().within(settings.secondLooksTime()));
            return LineAnswers.secondLooks(looks, context.defaultSets(), Parameters.millisSince(start));
        }
    }

    @Operation(
            summary = "What exclusion sets took away from a search",
            description = "Hits in files that a set left out, by set. Takes at most a second.")
    @RequestMapping(
            path = "/left-out",
            method = {RequestMethod.GET, RequestMethod.POST})
    @SearchThreadsOnly
    LeftOut leftOut(Caller caller, @ParameterObject LineParameters parameters, ScopeParameters within) {
        long start = System.nanoTime();
        Query query = parameters.query();
        try (CallerContext context = contexts.open(caller)) {
            Scope scope = context.scope(within);
            context.check(scope.around(query));
            var found = new dev.oddbeacon.core.lines.LeftOut(query, scope)
                    .run(context.search().within(LEFT_OUT));
            return LineAnswers.leftOut(found, context.defaultSets(), Parameters.millisSince(start));
        }
    }

    @Operation(
            summary = "Why a file is among the results of a search, or is not",
            description = "Each limit of the search, and the text, one by one.")
    @RequestMapping(
            path = "/about",
            method = {RequestMethod.GET, RequestMethod.POST})
    AboutFile about(
            Caller caller,
            @RequestParam String repository,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev,
            @ParameterObject LineParameters parameters,
            ScopeParameters within) {
        Query query = parameters.query();
        try (CallerContext context = contexts.open(caller)) {
            Scope scope = context.scope(within);
            context.check(scope.around(query));
            context.checkRepository(repository);
            View view = context.view();
            int number = view.branchNumber(repository, rev)
                    .orElseThrow(() -> new NotFoundException(
                            rev.isEmpty()
                                    ? repository + " is not indexed yet."
                                    : rev + " of " + repository
                                            + " is not indexed. The page of repositories lists what is."));
            Branch branch = view.branch(number);
            OptionalInt file = view.snapshot(number).find(path);
            if (file.isEmpty()) {
                return new AboutFile(
                        repository,
                        branch.name(),
                        path,
                        false,
                        nearest(context.search(), branch, path),
                        false,
                        0,
                        "",
                        Map.of(),
                        List.of(),
                        null);
            }
            var answer = new dev.oddbeacon.core.lines.AboutFile(query, scope, context::patterns)
                    .of(context.search(), number, file.getAsInt());
            return LineAnswers.about(branch, path, answer);
        }
    }

    /** Paths of files that are named alike. */
    private static List<String> nearest(SearchContext context, Branch branch, String path) {
        Scope there = Scope.EVERYTHING
                .with(ScopePart.REPO, List.of(Glob.escape(branch.repository())))
                .with(ScopePart.BRANCH, List.of(Glob.escape(branch.name())));
        FileSearch search = new FileSearch(
                path.substring(path.lastIndexOf('/') + 1),
                PathReading.FRAGMENTS,
                CaseMode.AUTO,
                there,
                FileSearch.Kind.FILE,
                FileSearch.Sizes.ANY,
                FileSearch.Sorting.by(FileSearch.Order.RELEVANCE),
                0,
                NEAREST);
        return search.run(context).page().stream().map(FileSearch.Found::path).toList();
    }
}
