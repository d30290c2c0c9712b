package dev.oddbeacon.wire;

import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import java.util.List;
import java.util.Locale;

/** Symbols that were found, as answers tell them. */
public final class SymbolPages {
    private SymbolPages() {}

    /** The places of a page. */
    public static List<SymbolsAnswer.Symbol> symbols(View view, SymbolAnswer answer) {
        return answer.page().stream()
                .map(symbol -> {
                    Branch branch = view.branch(symbol.branchNumber());
                    var snapshot = view.snapshot(symbol.branchNumber());
                    return new SymbolsAnswer.Symbol(
                            symbol.name(),
                            symbol.kind().map(Kind::label).orElse(null),
                            symbol.container(),
                            symbol.role().name().toLowerCase(Locale.ROOT),
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
    }

    /** What the symbols of an answer have in common. */
    public static SymbolsAnswer.Facets facets(SymbolAnswer answer) {
        Facets facets = answer.facets();
        return new SymbolsAnswer.Facets(
                Parts.facet(answer.kinds()),
                Parts.facet(answer.roles()),
                Parts.facet(answer.certainties()),
                Parts.facet(facets.repository()),
                Parts.facet(facets.type()),
                Parts.facet(facets.trait()));
    }
}
