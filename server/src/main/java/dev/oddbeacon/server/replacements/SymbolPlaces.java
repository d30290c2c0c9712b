package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.core.symbols.Navigation.Reason;
import dev.oddbeacon.core.symbols.SymbolAnswer.Symbol;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Where a name is declared and used in code, and how sure it is that what is used is what is declared. */
final class SymbolPlaces {
    private static final int MOST_CONTAINERS = 20;

    private record Place(int line, int column) {}

    private final View view;
    private final Map<InBranch, Map<Place, SymbolRole>> byFile = new HashMap<>();
    private final Optional<Navigation.Declarations> declared;
    private final List<String> containers;
    private int uses;
    private int sure;

    private SymbolPlaces(String name, View view, List<Symbol> found) {
        this.view = view;
        for (Symbol symbol : found) {
            byFile.computeIfAbsent(new InBranch(symbol.branchNumber(), symbol.file()), _ -> new HashMap<>())
                    .put(new Place(symbol.line().number(), symbol.column()), symbol.role());
        }
        this.declared = found.stream()
                .findFirst()
                .map(symbol -> new Navigation(view, symbol.branchNumber(), symbol.file()).declarationsOf(name));
        this.containers = declared.map(places -> places.containers(view)).orElse(List.of());
    }

    static SymbolPlaces of(String name, Scope scope, SearchContext context, int most) {
        List<Symbol> found = new SymbolSearch(
                        SymbolQuery.whole(name, scope), SymbolRole.ANY, Set.of(), Set.of(), 0, most, true)
                .run(context)
                .page();
        return new SymbolPlaces(name, context.view(), found);
    }

    Set<InBranch> files() {
        return byFile.keySet();
    }

    /** Finds the name in one file, and counts how sure its uses there are. */
    Found.Finder in(InBranch file, MatchFinder text, boolean mentions) {
        Map<Place, SymbolRole> places = byFile.getOrDefault(file, Map.of());
        boolean isSure = isSure(file);
        return of -> text.counting(Optional.empty(), (_, _) -> true).in(of).stream()
                .flatMap(found -> {
                    Optional<SymbolRole> role = Optional.ofNullable(
                            places.get(new Place(of.line(found.start()), of.column(found.start()))));
                    if (role.isEmpty() && !mentions) {
                        return Stream.of();
                    }
                    if (role.equals(Optional.of(SymbolRole.USE))) {
                        uses++;
                        sure += isSure ? 1 : 0;
                    }
                    String warning = role.isEmpty()
                            ? "it is no code"
                            : role.get() == SymbolRole.USE && !isSure ? "it has this name, and may be another" : "";
                    return Stream.of(new Found(
                            found.start(),
                            found.end(),
                            found.with(),
                            warning.isEmpty() ? List.of() : List.of(warning)));
                })
                .toList();
    }

    /** Whether uses in a file are surely of what is declared, as far as files tell. */
    private boolean isSure(InBranch file) {
        return containers.size() == 1
                || declared.flatMap(places -> new Navigation(view, file.branchNumber(), file.file()).surest(places))
                        .filter(reason -> reason.compareTo(Reason.SAME_FOLDER) < 0)
                        .isPresent();
    }

    Replacement.Symbol about() {
        return new Replacement.Symbol(
                declared.map(Navigation.Declarations::count).orElse(0),
                containers.stream().limit(MOST_CONTAINERS).toList(),
                uses,
                sure);
    }
}
