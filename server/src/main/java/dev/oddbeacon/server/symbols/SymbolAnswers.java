package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.wire.SymbolPages;

/** Converts the core's answers about symbols to the wire format. */
final class SymbolAnswers {
    private SymbolAnswers() {}

    static SymbolsAnswer symbols(
            SymbolParameters parameters,
            SymbolQuery query,
            LinesAnswer.IndexState state,
            View view,
            SymbolAnswer answer,
            String next,
            double millis) {
        return new SymbolsAnswer(
                new SymbolsAnswer.QueryEcho(
                        parameters.text(query),
                        Parameters.lower(parameters.nameReading()),
                        Parameters.lower(parameters.symbolRole()),
                        ExpressionPrinter.print(query.limits())),
                state,
                answer.stopped().map(Parameters::lower).orElse(null),
                new SymbolsAnswer.Counts(
                        answer.symbols(), answer.files(), answer.repositories(), answer.exact() && state.complete()),
                SymbolPages.facets(answer),
                SymbolPages.symbols(view, answer),
                next,
                millis);
    }
}
