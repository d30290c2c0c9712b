package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.core.symbols.SymbolsFound;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.load.SearchThreadsOnly;
import dev.oddbeacon.server.machines.Sharing;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/symbols} */
@RestController
class SymbolSearchController {
    private static final String PATH = "/api/v1/search/symbols";

    private final Contexts contexts;
    private final Sharing sharing;

    SymbolSearchController(Contexts contexts, Sharing sharing) {
        this.contexts = contexts;
        this.sharing = sharing;
    }

    @Operation(
            summary = "Symbols by their names: where they are declared, where they are used",
            description = "Declarations come first.")
    @RequestMapping(
            path = PATH,
            method = {RequestMethod.GET, RequestMethod.POST})
    @SearchThreadsOnly
    SymbolsAnswer symbols(
            Caller caller,
            @ParameterObject SymbolParameters parameters,
            ScopeParameters within,
            HttpServletRequest request) {
        long start = System.nanoTime();
        try (CallerContext context = contexts.open(caller, parameters.from(), parameters.askerId())) {
            SymbolSearch search = parameters.search(context, within);
            SymbolQuery query = search.query();
            context.check(query.limits());
            SymbolAnswer answer = sharing.run(search, PATH, SymbolsFound.class, context.search(), request);
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

    /** The part of another machine's search for symbols. */
    @Hidden
    @PostMapping(PATH + Sharing.PART)
    @SearchThreadsOnly
    SymbolsFound part(Caller caller, SymbolParameters parameters, ScopeParameters within, HttpServletRequest request) {
        try (CallerContext context = contexts.open(caller, Optional.empty(), parameters.askerId())) {
            SymbolSearch search = parameters.search(context, within);
            return sharing.part(search, context.search(), request);
        }
    }
}
