package dev.oddbeacon.server.lines;

import dev.oddbeacon.api.AboutFile;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.Problem;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.lines.LeftOut;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.SecondLooks;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.wire.LinePages;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Converts the core's answers about lines to the wire format. */
final class LineAnswers {
    private LineAnswers() {}

    static LinesAnswer lines(
            TextQuery text,
            String expression,
            Optional<Mistake> unfinished,
            LinesAnswer.IndexState state,
            View view,
            LineAnswer answer,
            String next,
            boolean explains,
            boolean tellsRegions,
            double millis) {
        return new LinesAnswer(
                new LinesAnswer.QueryEcho(
                        text.text(),
                        Parameters.lower(text.reading()),
                        Parameters.lower(text.caseMode()),
                        text.word(),
                        expression,
                        unfinished
                                .map(mistake -> new Problem.Mistake(
                                        mistake.message(),
                                        mistake.position(),
                                        mistake.length(),
                                        mistake.suggestion().orElse(null),
                                        true))
                                .orElse(null)),
                state,
                answer.stopped().map(Parameters::lower).orElse(null),
                new LinesAnswer.Counts(
                        answer.hits(), answer.files(), answer.repositories(), answer.exact() && state.complete()),
                LinePages.facets(answer),
                LinePages.files(view, answer, tellsRegions),
                next,
                millis,
                explains ? explanation(answer.explanation()) : null);
    }

    private static LinesAnswer.Explanation explanation(LineAnswer.Explanation explanation) {
        return new LinesAnswer.Explanation(
                explanation.plan(),
                explanation.segments(),
                explanation.lists(),
                explanation.postingsBytes(),
                explanation.candidates(),
                explanation.filesVerified(),
                explanation.bytesVerified(),
                explanation.stages().stream()
                        .map(stage -> new LinesAnswer.Stage(stage.name(), stage.millis()))
                        .toList());
    }

    static dev.oddbeacon.api.SecondLooks secondLooks(
            List<SecondLooks.Look> looks, List<String> defaults, double millis) {
        return new dev.oddbeacon.api.SecondLooks(
                looks.stream()
                        .map(look -> {
                            TextQuery query = look.query();
                            return new dev.oddbeacon.api.SecondLooks.Look(
                                    look.change(),
                                    query.text(),
                                    Parameters.lower(query.reading()),
                                    Parameters.lower(query.caseMode()),
                                    query.word(),
                                    scope(look.scope(), defaults),
                                    look.hits(),
                                    look.files(),
                                    look.exact());
                        })
                        .toList(),
                millis);
    }

    /**
     * The values of all parts of a scope by the names of their parameters.
     *
     * @param defaults exclusion sets that are lifted where the scope does not have them
     */
    private static Map<String, List<String>> scope(Scope scope, List<String> defaults) {
        Map<String, List<String>> values = new LinkedHashMap<>();
        for (ScopePart part : ScopePart.values()) {
            values.put(
                    part.parameter(),
                    part == ScopePart.LIFT
                            ? defaults.stream()
                                    .filter(name -> !scope.of(ScopePart.EXCEPT).contains(name))
                                    .toList()
                            : scope.of(part));
        }
        return values;
    }

    static dev.oddbeacon.api.LeftOut leftOut(List<LeftOut.BySet> found, List<String> defaults, double millis) {
        return new dev.oddbeacon.api.LeftOut(
                found.stream()
                        .map(set -> new dev.oddbeacon.api.LeftOut.Set(
                                set.name(), defaults.contains(set.name()), set.hits(), set.files(), set.exact()))
                        .toList(),
                millis);
    }

    static AboutFile about(Branch branch, String path, dev.oddbeacon.core.lines.AboutFile.Answer answer) {
        return new AboutFile(
                branch.repository(),
                branch.name(),
                path,
                true,
                List.of(),
                answer.found(),
                answer.hits(),
                answer.type(),
                answer.traits(),
                answer.checks().stream()
                        .map(check -> new AboutFile.Check(check.limit(), check.holds(), check.why()))
                        .toList(),
                answer.nearest()
                        .map(line -> new AboutFile.Nearest(line.number(), line.text()))
                        .orElse(null));
    }
}
