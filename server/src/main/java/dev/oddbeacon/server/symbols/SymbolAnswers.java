package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.wire.Parts;
import java.util.List;

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
        List<SymbolsAnswer.Symbol> symbols = answer.page().stream()
                .map(symbol -> {
                    Branch branch = view.branch(symbol.branchNumber());
                    var snapshot = view.snapshot(symbol.branchNumber());
                    return new SymbolsAnswer.Symbol(
                            symbol.name(),
                            symbol.kind().map(Kind::label).orElse(null),
                            symbol.container(),
                            Parameters.lower(symbol.role()),
                            branch.repository(),
                            branch.name(),
                            branch.commit(),
                            snapshot.path(symbol.file()),
                            snapshot.type(symbol.file()),
                            Traits.labels(snapshot.traits(symbol.file())),
                            symbol.line().number(),
                            symbol.endLine(),
                            symbol.column(),
                            symbol.signature(),
                            symbol.line().text(),
                            symbol.line().textStart(),
                            Parts.matches(symbol.line().matches()),
                            symbol.certainty().map(Certainty::label).orElse(null));
                })
                .toList();
        Facets facets = answer.facets();
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
                new SymbolsAnswer.Facets(
                        Parts.facet(answer.kinds()),
                        Parts.facet(answer.roles()),
                        Parts.facet(answer.certainties()),
                        Parts.facet(facets.repository()),
                        Parts.facet(facets.type()),
                        Parts.facet(facets.trait())),
                symbols,
                next,
                millis);
    }
}
