package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolQuery.NameReading;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.access.SearchParameters;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.BindParam;

/** The parameters of a search for symbols, as they come in. What is absent is null. */
public record SymbolParameters(
        @Parameter(description = "the name, or parts of it", required = true)
        String q,

        @Parameter(
                description =
                        "fragments (the default): each occurs in the name, or in what a declaration of it stands in; plain: the whole name, as in Berth or Berth.assign; glob: the whole name, as in get*; regex; expression")
        String reading,

        @Parameter(name = "case", description = "auto (the default), match, ignore; fragments ignore it")
        @BindParam("case")
        String caseName,

        @Parameter(description = "declaration (the default), use, any")
        String role,

        @Parameter(description = "kind of declarations: class, function, field and so on; with it no uses are found")
        List<String> kind,

        @Parameter(
                description =
                        "how surely uses must mean what is declared, where more than its name is asked for, as in Berth.assign: sure, likely, by-name; sure and likely if absent")
        List<String> certainty,

        @Parameter(
                description =
                        "instead of q: a place where the symbol is named, as REPOSITORY/PATH:LINE:COLUMN; its uses are found, on the default branch")
        String of,

        @Parameter(description = "with \"of\": uses of the methods that it overrides, or that override it, as well")
        Boolean family,

        @Parameter(description = "most places of a page, 1 to 1000 (100)")
        Integer limit,

        @Parameter(description = "\"next\" of the page before; kept for ten minutes")
        String cursor,

        @Parameter(description = "quick (the default): counts may be lower bounds for very short names; exact")
        String counts,

        @Parameter(description = "an id of the caller's choice: a newer search with it cancels the older one")
        String asker)
        implements SearchParameters {
    private static final int MOST = 1_000;

    private enum Counting {
        QUICK,
        EXACT
    }

    /** The search, from where its cursor says. */
    SymbolSearch search(CallerContext context, ScopeParameters within) {
        SymbolQuery query = query(context, context.scope(within));
        return new SymbolSearch(
                query,
                query.role().orElse(symbolRole()),
                kinds(),
                certainties(),
                from().map(Cursor::passed).orElse(0),
                most(),
                countsExactly());
    }

    /** What is asked for, which may be said by a place. */
    private SymbolQuery query(CallerContext context, Scope scope) {
        return of == null || of.isEmpty()
                ? query(scope)
                : SymbolPlace.parse(of).uses(context, scope, Boolean.TRUE.equals(family));
    }

    private SymbolQuery query(Scope scope) {
        if (of != null && !of.isEmpty()) {
            throw new BadRequestException(
                    "A place cannot be kept, because lines move. Ask by the name, as in Berth.assign.");
        }
        if (q == null) {
            throw new BadRequestException("The parameter q is missing. Give the name to look for, or a part of it.");
        }
        return SymbolQuery.of(q, nameReading(), Parameters.oneOf(CaseMode.values(), "case", caseName), scope);
    }

    /** The name that is asked for, as it was given or as it stands at the place. */
    String text(SymbolQuery query) {
        return query.declarations().isEmpty()
                ? q
                : query.declarations().getFirst().name();
    }

    NameReading nameReading() {
        return Parameters.oneOf(NameReading.values(), "reading", reading);
    }

    SymbolRole symbolRole() {
        return Parameters.oneOf(SymbolRole.values(), "role", role);
    }

    Set<Kind> kinds() {
        EnumSet<Kind> kinds = EnumSet.noneOf(Kind.class);
        for (String label : kind == null ? List.<String>of() : kind) {
            if (!label.isEmpty()) {
                kinds.add(Kind.of(label)
                        .orElseThrow(() -> new InvalidQueryException("There is no kind \"" + label + "\". Kinds are "
                                + Arrays.stream(Kind.values())
                                        .filter(each -> !each.isUse())
                                        .map(Kind::label)
                                        .collect(Collectors.joining(", "))
                                + ".")));
            }
        }
        return kinds;
    }

    Set<Certainty> certainties() {
        EnumSet<Certainty> wanted = EnumSet.noneOf(Certainty.class);
        for (String label : certainty == null ? List.<String>of() : certainty) {
            if (!label.isEmpty()) {
                wanted.add(Certainty.of(label)
                        .orElseThrow(() -> new BadRequestException("There is no certainty \"" + label
                                + "\". A use is sure, likely, or by-name: only the name speaks for it.")));
            }
        }
        return wanted;
    }

    int most() {
        return Parameters.range("limit", limit, 100, 1, MOST);
    }

    boolean countsExactly() {
        return Parameters.oneOf(Counting.values(), "counts", counts) == Counting.EXACT;
    }

    String askerId() {
        return Parameters.orEmpty(asker);
    }

    Optional<Cursor> from() {
        return Cursor.parse(Cursor.Kind.SYMBOLS, cursor);
    }

    @Override
    public List<Result> results(CallerContext context, ScopeParameters within, int most) {
        SymbolQuery query = query(context.scope(within));
        SymbolAnswer answer = new SymbolSearch(
                        query, query.role().orElse(symbolRole()), kinds(), certainties(), 0, most, false)
                .run(context.search());
        View view = context.view();
        return answer.page().stream()
                .map(symbol -> {
                    Branch branch = view.branch(symbol.branchNumber());
                    return new Result(
                            branch.repository(),
                            branch.name(),
                            branch.commit(),
                            view.snapshot(symbol.branchNumber()).path(symbol.file()),
                            symbol.line().number(),
                            symbol.name(),
                            symbol.line().text());
                })
                .toList();
    }

    @Override
    public Query query(CallerContext context, ScopeParameters within) {
        symbolRole();
        kinds();
        certainties();
        return query(context.scope(within)).limits();
    }
}
