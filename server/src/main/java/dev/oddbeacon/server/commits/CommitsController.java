package dev.oddbeacon.server.commits;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.OverTimeAnswer;
import dev.oddbeacon.core.commits.CommitAnswer;
import dev.oddbeacon.core.commits.CommitSearch;
import dev.oddbeacon.core.commits.CommitsFound;
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
import dev.oddbeacon.server.machines.Sharing;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.wire.CommitInfos;
import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Optional;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** Searches of the past: {@code /api/v1/search/commits}, and how matching lines came and went. */
@RestController
class CommitsController {
    private static final String PATH = "/api/v1/search/commits";
    private static final String OVER_TIME = "/api/v1/search/lines/over-time";

    private final Contexts contexts;
    private final Sharing sharing;

    CommitsController(Contexts contexts, Sharing sharing) {
        this.contexts = contexts;
        this.sharing = sharing;
    }

    @Operation(
            summary = "Commits, the newest first",
            description = "By words in the message, people, dates, changed files, and the lines they added or removed.")
    @RequestMapping(
            path = PATH,
            method = {RequestMethod.GET, RequestMethod.POST})
    CommitsAnswer commits(
            Caller caller,
            @ParameterObject CommitParameters parameters,
            ScopeParameters within,
            HttpServletRequest request) {
        long start = System.nanoTime();
        try (CallerContext context = contexts.open(caller, parameters.from(), parameters.askerId())) {
            CommitSearch search = parameters.search(context.scope(within));
            Query query = search.query();
            context.check(query);
            CommitAnswer answer = sharing.run(search, PATH, CommitsFound.class, context.search(), request);
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

    /** The part of another machine's search for commits. */
    @Hidden
    @PostMapping(PATH + Sharing.PART)
    CommitsFound part(Caller caller, CommitParameters parameters, ScopeParameters within, HttpServletRequest request) {
        try (CallerContext context = contexts.open(caller, Optional.empty(), parameters.askerId())) {
            CommitSearch search = parameters.search(context.scope(within));
            return sharing.part(search, context.search(), request);
        }
    }

    @Operation(
            summary = "When matching lines came in, and when they left",
            description =
                    "Of one text or regular expression: by repository the number of matching lines over time, and the commits that changed it.")
    @RequestMapping(
            path = OVER_TIME,
            method = {RequestMethod.GET, RequestMethod.POST})
    OverTimeAnswer overTime(
            Caller caller,
            @ParameterObject LineParameters parameters,
            ScopeParameters within,
            HttpServletRequest request) {
        long start = System.nanoTime();
        try (CallerContext context =
                contexts.open(caller, parameters.from(Cursor.Kind.OVER_TIME), parameters.askerId())) {
            LinesOverTime search = overTime(parameters, context.scope(within));
            Query query = search.scope().around(search.text());
            context.check(query);
            LinesOverTime.Answer answer =
                    sharing.run(search, OVER_TIME, LinesOverTime.Found.class, context.search(), request);
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

    private static LinesOverTime overTime(LineParameters parameters, Scope scope) {
        return new LinesOverTime(
                parameters.textQuery().understand(false).query(),
                CaseMode.AUTO,
                scope,
                parameters.from(Cursor.Kind.OVER_TIME).map(Cursor::passed).orElse(0),
                parameters.most());
    }

    /** The part of another machine that is asked when lines came and went. */
    @Hidden
    @PostMapping(OVER_TIME + Sharing.PART)
    LinesOverTime.Found part(
            Caller caller, LineParameters parameters, ScopeParameters within, HttpServletRequest request) {
        try (CallerContext context = contexts.open(caller, Optional.empty(), parameters.askerId())) {
            LinesOverTime search = overTime(parameters, context.scope(within));
            return sharing.part(search, context.search(), request);
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
