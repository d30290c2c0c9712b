package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.UseJudge;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.snapshot.View;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What is asked of symbols: of their names, and where they stand.
 *
 * @param names says which names are meant
 * @param symbol a name as clauses take it, if that is what is asked
 * @param role as an expression says it; empty if it does not
 * @param limits what is asked of files: limits only, no text
 * @param declarations those that uses must mean, all of one name; empty if that does not matter
 */
public record SymbolQuery(
        NameMatcher names,
        Optional<SymbolName> symbol,
        Optional<SymbolRole> role,
        Query limits,
        List<Spot> declarations) {
    /** The way the text is read. */
    public enum NameReading {
        /** Each fragment occurs in the name or, if it is declared, in what it stands in; see {@link FragmentNames}. */
        FRAGMENTS,
        /** The whole name, with what it stands in before it if that is given. */
        PLAIN,
        REGEX,
        /** A glob for the whole name. */
        GLOB,
        /** Words and clauses, which are about the name. */
        EXPRESSION
    }

    /**
     * Reads what is asked.
     *
     * @throws InvalidQueryException if it cannot be understood so
     */
    public static SymbolQuery of(String text, NameReading reading, CaseMode caseMode, Scope scope) {
        TextQuery.check(text);
        if (text.isBlank()) {
            throw new InvalidQueryException("The name is empty. Give at least one letter of the name to look for.");
        }
        return switch (reading) {
            case FRAGMENTS ->
                new SymbolQuery(
                        FragmentNames.of(text, caseMode), Optional.empty(), Optional.empty(), scope.query(), List.of());
            case PLAIN, GLOB -> named(SymbolName.of(text), Optional.empty(), caseMode, scope.query());
            case REGEX ->
                new SymbolQuery(
                        ClauseNames.of(new TextQuery(text, Reading.REGEX, caseMode, false)
                                .understand(false)
                                .query()),
                        Optional.empty(),
                        Optional.empty(),
                        scope.query(),
                        List.of());
            case EXPRESSION ->
                expression(
                        new TextQuery(text, Reading.EXPRESSION, caseMode, false)
                                .understand(false)
                                .query(),
                        caseMode,
                        scope);
        };
    }

    /** Symbols of exactly a name. */
    public static SymbolQuery whole(String name, Scope scope) {
        return named(
                new SymbolName(Optional.empty(), List.of(), name), Optional.empty(), CaseMode.MATCH, scope.query());
    }

    /** Uses of some declarations, all of one name. */
    public static SymbolQuery usesOf(List<Spot> declarations, Scope scope) {
        SymbolQuery whole = whole(declarations.getFirst().name(), scope);
        return new SymbolQuery(
                whole.names, whole.symbol, Optional.of(SymbolRole.USE), whole.limits, List.copyOf(declarations));
    }

    /** Judges uses, if more than their name is asked for. For one thread. */
    Optional<UseJudge> judge(View view) {
        if (!declarations.isEmpty()) {
            return Optional.of(UseJudge.of(view, declarations));
        }
        return symbol.filter(SymbolName::asksMore).map(name -> UseJudge.of(view, name));
    }

    private static SymbolQuery named(SymbolName name, Optional<SymbolRole> role, CaseMode caseMode, Query limits) {
        return new SymbolQuery(ClauseNames.whole(name, caseMode), Optional.of(name), role, limits, List.of());
    }

    private static SymbolQuery expression(Query asked, CaseMode caseMode, Scope scope) {
        Query query = Query.besides(
                asked, clause -> clause instanceof Query.InRegion || clause instanceof TextClause.OfShape);
        Query inside = query instanceof Query.Marked marked ? marked.part() : query;
        List<Query> parts = inside instanceof Query.And and ? and.parts() : List.of(inside);
        List<Query> names = new ArrayList<>();
        List<Query> limits = new ArrayList<>(List.of(scope.query()));
        for (Query part : parts) {
            boolean limit = isLimit(part);
            if (!limit && holdsLimit(part)) {
                throw new InvalidQueryException(
                        "What limits where to look, such as type( ), under( ) or holds( ), cannot be joined to names by or. Search twice, or write it beside the names.");
            }
            (limit ? limits : names).add(part);
        }
        if (names.isEmpty()) {
            throw new InvalidQueryException(
                    "The expression asks for no name. Write a part of one, or symbol(Berth), for example.");
        }
        Query all = Query.and(limits);
        if (names.size() == 1 && names.getFirst() instanceof TextClause.Symbol symbol) {
            return named(
                    SymbolName.of(symbol.name()),
                    symbol.role() == SymbolRole.ANY ? Optional.empty() : Optional.of(symbol.role()),
                    caseMode,
                    all);
        }
        Query joined = Query.and(names);
        return new SymbolQuery(
                ClauseNames.of(query instanceof Query.Marked marked ? new Query.Marked(marked.mark(), joined) : joined),
                Optional.empty(),
                Optional.empty(),
                all,
                List.of());
    }

    /** Whether it asks of files, their content included, and not of names. */
    private static boolean isLimit(Query query) {
        return switch (query) {
            case Query.Holds _, Query.Everything _, FileCondition _ -> true;
            case Query.And _, Query.Or _, Query.Not _ ->
                query.children().stream().allMatch(SymbolQuery::isLimit);
            case Query.Marked _, Query.InRegion _, TextClause _, CommitCondition _ -> false;
        };
    }

    private static boolean holdsLimit(Query query) {
        return query instanceof FileCondition
                || query instanceof Query.Holds
                || query.children().stream().anyMatch(SymbolQuery::holdsLimit);
    }

    /** The compiled conditions on files. */
    CompiledQuery compiledLimits() {
        return CompiledQuery.of(limits, CaseMode.AUTO);
    }
}
