package dev.oddbeacon.client.worktree;

import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.wire.SymbolPages;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/** A search for symbols in a work tree as it is now. */
public final class SymbolsHere {
    private SymbolsHere() {}

    /**
     * The first page: what changed here, then what the service has.
     *
     * @param parameters of the search, by name
     * @param most places of the page
     * @param service asks it, without the files that changed, for so many places
     */
    public static SymbolsAnswer first(
            ChangedFiles changed,
            Map<String, List<String>> parameters,
            int most,
            Function<Integer, SymbolsAnswer> service) {
        Optional<Scope> scope = changed.scope(parameters);
        if (scope.isEmpty()) {
            return service.apply(most);
        }
        Values values = new Values(parameters);
        SymbolQuery query = SymbolQuery.of(
                values.text("q"),
                values.oneOf(SymbolQuery.NameReading.values(), "reading"),
                values.oneOf(CaseMode.values(), "case"),
                scope.get());
        SymbolAnswer here = new SymbolSearch(
                        query,
                        query.role().orElse(values.oneOf(SymbolRole.values(), "role")),
                        given(parameters, "kind", Kind::of),
                        given(parameters, "certainty", Certainty::of),
                        0,
                        most,
                        true)
                .run(changed.context());
        List<SymbolsAnswer.Symbol> all = new ArrayList<>(SymbolPages.symbols(changed.view(), here));
        int left = most - all.size();
        SymbolsAnswer there = service.apply(Math.max(1, left));
        all.addAll(left > 0 ? there.symbols() : List.of());
        boolean isCut = left <= 0 && there.counts().symbols() + here.symbols() > most;
        return new SymbolsAnswer(
                there.query(),
                there.index(),
                there.stopped(),
                new SymbolsAnswer.Counts(
                        there.counts().symbols() + here.symbols(),
                        there.counts().files() + here.files(),
                        Math.max(there.counts().repositories(), here.repositories()),
                        there.counts().exact()),
                Shares.symbols(there.facets(), SymbolPages.facets(here)),
                all,
                isCut ? LinesHere.MORE : left > 0 ? there.next() : null,
                there.tookMillis());
    }

    private static <T> Set<T> given(
            Map<String, List<String>> parameters, String name, Function<String, Optional<T>> parse) {
        return parameters.getOrDefault(name, List.of()).stream()
                .map(parse)
                .flatMap(Optional::stream)
                .collect(Collectors.toSet());
    }
}
