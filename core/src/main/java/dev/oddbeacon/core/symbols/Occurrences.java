package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.Relatives;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.Spots;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.symbols.SymbolAnswer.Symbol;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * Where a symbol is declared and used: what has to change for it to be called otherwise.
 *
 * @param declarations all that are meant, whether in the scope or not; of a method the family as well, of a type its
 *        constructors
 * @param places in the scope, of the declarations and of what means them
 * @param others uses in the scope that only have the name, and are no places: of a name that says more than itself
 */
public record Occurrences(List<Spot> declarations, List<Place> places, int others) {
    /**
     * @param line from 1
     * @param column from 1, in UTF-16 units
     * @param certainty of a use whose declarations are known
     */
    public record Place(
            int branchNumber, int file, int line, int column, SymbolRole role, Optional<Certainty> certainty) {}

    /**
     * @param symbol a whole name; with a kind or a container, only what has it is meant
     * @param most places to tell
     * @throws InvalidQueryException if nothing is declared that has the kind or container
     */
    public static Occurrences of(SymbolName symbol, Scope scope, SearchContext context, int most) {
        List<Symbol> named = run(SymbolQuery.whole(symbol.name(), scope), SymbolRole.ANY, most, context);
        List<Spot> spots = spots(symbol, named, context);
        if (spots.isEmpty()) {
            if (symbol.asksMore()) {
                throw new InvalidQueryException("Nothing is declared as " + written(symbol)
                        + " that you see. Give the name alone to mean whatever has it.");
            }
            return new Occurrences(
                    List.of(),
                    named.stream().map(one -> place(one, Optional.empty())).toList(),
                    0);
        }
        Set<String> declared = new HashSet<>();
        Navigation.targets(spots)
                .forEach(one -> declared.add(key(one.branchNumber(), one.file(), one.line(), one.column())));
        List<Place> places = new ArrayList<>();
        named.stream()
                .filter(one -> one.role() == SymbolRole.DECLARATION)
                .filter(one -> declared.contains(
                        key(one.branchNumber(), one.file(), one.line().number(), one.column())))
                .forEach(one -> places.add(place(one, Optional.empty())));
        int others = 0;
        for (Symbol use : run(SymbolQuery.usesOf(spots, scope), SymbolRole.USE, most, context)) {
            if (symbol.asksMore() && use.certainty().equals(Optional.of(Certainty.BY_NAME))) {
                others++;
            } else {
                places.add(place(use, use.certainty()));
            }
        }
        return new Occurrences(spots, places, others);
    }

    private static List<Symbol> run(SymbolQuery query, SymbolRole role, int most, SearchContext context) {
        return new SymbolSearch(query, role, Set.of(), EnumSet.allOf(Certainty.class), 0, most, true)
                .run(context)
                .page();
    }

    private static Place place(Symbol one, Optional<Certainty> certainty) {
        return new Place(one.branchNumber(), one.file(), one.line().number(), one.column(), one.role(), certainty);
    }

    private static String key(int branchNumber, int file, int line, int column) {
        return branchNumber + " " + file + " " + line + " " + column;
    }

    private static String written(SymbolName symbol) {
        return symbol.kind().map(kind -> kind.label() + " ").orElse("")
                + symbol.containers().stream().map(one -> one + ".").collect(Collectors.joining())
                + symbol.name();
    }

    /** The declarations that are meant, on the branches of the scope and on default branches elsewhere. */
    private static List<Spot> spots(SymbolName symbol, List<Symbol> named, SearchContext context) {
        Set<Integer> branches = new TreeSet<>();
        named.forEach(one -> branches.add(one.branchNumber()));
        run(SymbolQuery.whole(symbol.name(), Scope.EVERYTHING), SymbolRole.DECLARATION, Integer.MAX_VALUE, context)
                .forEach(one -> branches.add(one.branchNumber()));
        List<Spot> all = new ArrayList<>();
        for (int branchNumber : branches) {
            List<Spot> here = new Spots(context.view(), branchNumber)
                    .of(symbol.name()).stream()
                            .filter(spot -> spot.branchNumber() == branchNumber)
                            .toList();
            List<Spot> meant = here.stream()
                    .filter(spot -> symbol.takes(spot.declared().kind(), spot.container()))
                    .toList();
            Relatives relatives = new Relatives(context.view(), branchNumber);
            for (Spot spot : meant) {
                add(all, spot);
                here.stream().filter(other -> isConstructor(other, spot)).forEach(other -> add(all, other));
                if (Relatives.tells(spot)) {
                    relatives.family(spot).forEach(other -> add(all, other));
                }
            }
        }
        return all;
    }

    private static void add(List<Spot> all, Spot spot) {
        if (all.stream().noneMatch(spot::isSameAs)) {
            all.add(spot);
        }
    }

    private static boolean isConstructor(Spot spot, Spot type) {
        return type.declared().kind().isType()
                && spot.declared().kind().isCallable()
                && spot.segment() == type.segment()
                && spot.blob() == type.blob()
                && spot.declared().parent() >= 0
                && spot.segment()
                        .declaration(spot.blob(), spot.declared().parent())
                        .equals(type.declared());
    }
}
