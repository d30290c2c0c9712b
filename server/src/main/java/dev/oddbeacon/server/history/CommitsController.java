package dev.oddbeacon.server.history;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.CourseAnswer;
import dev.oddbeacon.api.LinesAnswer.IndexState;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.ExpressionPrinter;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.ComeAndGo;
import dev.oddbeacon.core.search.CommitAnswer;
import dev.oddbeacon.core.search.CommitSearch;
import dev.oddbeacon.core.search.LineAnswer;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.exclusion.ExclusionSets;
import dev.oddbeacon.server.index.LiveIndex;
import dev.oddbeacon.server.index.Searches;
import dev.oddbeacon.server.search.Asked;
import dev.oddbeacon.server.search.Cursor;
import dev.oddbeacon.server.search.LineParameters;
import dev.oddbeacon.server.search.ScopeParameters;
import dev.oddbeacon.server.search.Superseded;
import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** Searches of the past: {@code /api/v1/search/commits}, and how matching lines came and went. */
@RestController
@RequestMapping("/api/v1/search")
class CommitsController {
    private final Settings settings;
    private final LiveIndex index;
    private final Asked asked;
    private final ExclusionSets sets;
    private final Searches searches;
    private final Superseded superseded;

    CommitsController(Settings settings, LiveIndex index, Asked asked, ExclusionSets sets, Searches searches, Superseded superseded) {
        this.settings = settings;
        this.index = index;
        this.asked = asked;
        this.sets = sets;
        this.searches = searches;
        this.superseded = superseded;
    }

    @Operation(summary = "Commits, the newest first", description = "By words in the message, people, dates, changed files, and the lines they added or removed.")
    @RequestMapping(path = "/commits", method = {RequestMethod.GET, RequestMethod.POST})
    CommitsAnswer commits(@ParameterObject CommitParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        Query query = Query.and(List.of(asked.scope(within).with(Scope.Part.EXCEPT, List.of()).query(), parameters.query()));
        asked.check(query);
        Optional<Cursor> from = parameters.from().isEmpty() ? Optional.empty() : Optional.of(Cursor.parse(parameters.from()));
        CommitSearch search = new CommitSearch(query, parameters.caseMode(), from.map(cursor -> cursor.position().hit()).orElse(0), parameters.most(), parameters.countsExactly(), sets.current(), new Budget(settings.searchTime()));
        View view = index.view(from.map(Cursor::view));
        superseded.by(parameters.askerId(), search.budget());
        try {
            CommitAnswer answer = search.run(view, searches.searches());
            return new CommitsAnswer(new CommitsAnswer.QueryEcho(parameters.text(), parameters.textReading().name().toLowerCase(Locale.ROOT), ExpressionPrinter.print(query)), state(query, view), covered(query),
                    answer.stopped().map(CommitsController::lower).orElse(null), new CommitsAnswer.Counts(answer.commits(), answer.repositories(), answer.exact()), Commits.facets(answer.facets()),
                    answer.page().stream().map(Commits::found).toList(), next(view, answer.next()), millisSince(start));
        } finally {
            superseded.ended(parameters.askerId(), search.budget());
            view.release();
        }
    }

    @Operation(summary = "When matching lines came in, and when they left", description = "Of one text or regular expression: by repository the number of matching lines over time, and the commits that changed it.")
    @RequestMapping(path = "/lines/over-time", method = {RequestMethod.GET, RequestMethod.POST})
    CourseAnswer overTime(@ParameterObject LineParameters parameters, @ParameterObject ScopeParameters within) {
        long start = System.nanoTime();
        Scope scope = asked.scope(within);
        Query text = parameters.textQuery().understand(false).query();
        Query query = scope.around(text);
        asked.check(query);
        Optional<Cursor> from = parameters.from().isEmpty() ? Optional.empty() : Optional.of(Cursor.parse(parameters.from()));
        Budget budget = new Budget(settings.searchTime());
        View view = index.view(from.map(Cursor::view));
        superseded.by(parameters.askerId(), budget);
        try {
            ComeAndGo.Answer answer = new ComeAndGo(text, CaseMode.AUTO, scope, from.map(cursor -> cursor.position().hit()).orElse(0), parameters.most(), sets.current(), budget).run(view, searches.searches());
            return new CourseAnswer(ExpressionPrinter.print(query), state(query, view), covered(query), answer.stopped().map(CommitsController::lower).orElse(null),
                    answer.courses().stream().map(course -> new CourseAnswer.Course(course.repository(), course.points().stream().map(point -> new CourseAnswer.Point(point.day(), point.lines())).toList(), course.now(),
                            course.difference())).toList(),
                    answer.commits(), answer.first().map(CommitsController::event).orElse(null), answer.last().map(CommitsController::event).orElse(null), answer.events().stream().map(CommitsController::event).toList(),
                    next(view, answer.next()), millisSince(start));
        } finally {
            superseded.ended(parameters.askerId(), budget);
            view.release();
        }
    }

    private static CourseAnswer.Event event(ComeAndGo.Event event) {
        return new CourseAnswer.Event(Commits.info(event.repository(), event.commit()), event.added(), event.removed());
    }

    private String next(View view, Optional<Integer> passed) {
        if (passed.isEmpty()) {
            return null;
        }
        index.keep(view);
        return new Cursor(view.number(), new LineAnswer.Position(0, passed.get())).toString();
    }

    private IndexState state(Query query, View view) {
        return asked.stateOfPast(CommitSearch.branchQuery(query), view);
    }

    private CommitsAnswer.Covered covered(Query query) {
        return asked.covered(CommitSearch.branchQuery(query));
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static double millisSince(long start) {
        return Math.round((System.nanoTime() - start) / 10_000.0) / 100.0;
    }
}
