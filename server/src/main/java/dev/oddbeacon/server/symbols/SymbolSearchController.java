package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.load.SearchThreadsOnly;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import java.util.Optional;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/symbols} */
@RestController
class SymbolSearchController {
    private final Contexts contexts;

    SymbolSearchController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(
            summary = "Symbols by their names: where they are declared, where they are used",
            description = "Declarations come first.")
    @RequestMapping(
            path = "/api/v1/search/symbols",
            method = {RequestMethod.GET, RequestMethod.POST})
    @SearchThreadsOnly
    SymbolsAnswer symbols(Caller caller, @ParameterObject SymbolParameters parameters, ScopeParameters within) {
        long start = System.nanoTime();
        Optional<Cursor> from = parameters.from();
        try (CallerContext context = contexts.open(caller, from, parameters.askerId())) {
            SymbolQuery query = parameters.query(context, context.scope(within));
            context.check(query.limits());
            SymbolSearch search = new SymbolSearch(
                    query,
                    query.role().orElse(parameters.symbolRole()),
                    parameters.kinds(),
                    parameters.certainties(),
                    from.map(Cursor::passed).orElse(0),
                    parameters.most(),
                    parameters.countsExactly());
            SymbolAnswer answer = search.run(context.search());
            return SymbolAnswers.symbols(
                    parameters,
                    query,
                    context.state(query.limits()),
                    context.view(),
                    answer,
                    context.cursor(Cursor.Kind.SYMBOLS, answer.next()),
                    Parameters.millisSince(start));
        }
    }
}
