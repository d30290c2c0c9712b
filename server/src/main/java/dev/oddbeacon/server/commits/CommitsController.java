package dev.oddbeacon.server.commits;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.OverTimeAnswer;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.commits.CommitAnswer;
import dev.oddbeacon.core.commits.CommitSearch;
import dev.oddbeacon.core.commits.LinesOverTime;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.lines.LineParameters;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.wire.CommitInfos;
import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Optional;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** Searches of the past: {@code /api/v1/search/commits}, and how matching lines came and went. */
@RestController
@RequestMapping("/api/v1/search")
class CommitsController {
    private final Contexts contexts;

    CommitsController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(
            summary = "Commits, the newest first",
            description = "By words in the message, people, dates, changed files, and the lines they added or removed.")
    @RequestMapping(
            path = "/commits",
            method = {RequestMethod.GET, RequestMethod.POST})
    CommitsAnswer commits(Caller caller, @ParameterObject CommitParameters parameters, ScopeParameters within) {
        long start = System.nanoTime();
        Query asked = parameters.query();
        Optional<Cursor> from = parameters.from();
        try (CallerContext context = contexts.open(caller, from, parameters.askerId())) {
            Query query = Query.and(List.of(
                    context.scope(within).with(ScopePart.EXCEPT, List.of()).query(), asked));
            context.check(query);
            CommitAnswer answer = new CommitSearch(
                            query,
                            parameters.caseMode(),
                            from.map(Cursor::passed).orElse(0),
                            parameters.most(),
                            parameters.countsExactly())
                    .run(context.search());
            CommitsAnswer.QueryEcho echo = new CommitsAnswer.QueryEcho(
                    parameters.text(), Parameters.lower(parameters.textReading()), ExpressionPrinter.print(query));
            return new CommitsAnswer(
                    echo,
                    context.stateOfPast(query),
                    context.covered(query),
                    answer.stopped().map(Parameters::lower).orElse(null),
                    new CommitsAnswer.Counts(answer.commits(), answer.repositories(), answer.exact()),
                    CommitAnswers.facets(answer.facets()),
                    answer.page().stream().map(CommitAnswers::found).toList(),
                    context.cursor(Cursor.Kind.COMMITS, answer.next()),
                    Parameters.millisSince(start));
        }
    }

    @Operation(
            summary = "When matching lines came in, and when they left",
            description =
                    "Of one text or regular expression: by repository the number of matching lines over time, and the commits that changed it.")
    @RequestMapping(
            path = "/lines/over-time",
            method = {RequestMethod.GET, RequestMethod.POST})
    OverTimeAnswer overTime(Caller caller, @ParameterObject LineParameters parameters, ScopeParameters within) {
        long start = System.nanoTime();
        Query text = parameters.textQuery().understand(false).query();
        Optional<Cursor> from = parameters.from(Cursor.Kind.OVER_TIME);
        try (CallerContext context = contexts.open(caller, from, parameters.askerId())) {
            Scope scope = context.scope(within);
            Query query = scope.around(text);
            context.check(query);
            LinesOverTime.Answer answer = new LinesOverTime(
                            text, CaseMode.AUTO, scope, from.map(Cursor::passed).orElse(0), parameters.most())
                    .run(context.search());
            List<OverTimeAnswer.OfRepository> courses =
                    answer.courses().stream().map(CommitsController::course).toList();
            return new OverTimeAnswer(
                    ExpressionPrinter.print(query),
                    context.stateOfPast(query),
                    context.covered(query),
                    answer.stopped().map(Parameters::lower).orElse(null),
                    courses,
                    answer.commits(),
                    answer.first().map(CommitsController::event).orElse(null),
                    answer.last().map(CommitsController::event).orElse(null),
                    answer.events().stream().map(CommitsController::event).toList(),
                    context.cursor(Cursor.Kind.OVER_TIME, answer.next()),
                    Parameters.millisSince(start));
        }
    }

    private static OverTimeAnswer.OfRepository course(LinesOverTime.OfRepository course) {
        return new OverTimeAnswer.OfRepository(
                course.repository(),
                course.points().stream()
                        .map(point -> new OverTimeAnswer.Point(point.day(), point.lines()))
                        .toList(),
                course.now(),
                course.difference());
    }

    private static OverTimeAnswer.Event event(LinesOverTime.Event event) {
        return new OverTimeAnswer.Event(
                CommitInfos.listed(event.repository(), event.commit()), event.added(), event.removed());
    }
}
