package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.core.symbols.Occurrences;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Where a symbol is declared and used, and how surely what is used is what is declared. */
final class SymbolPlaces {
    private static final int MOST_CONTAINERS = 20;

    private record Place(int line, int column) {}

    private final View view;
    private final Occurrences occurrences;
    private final Map<InBranch, Map<Place, Occurrences.Place>> byFile = new HashMap<>();
    private int uses;
    private int sure;
    private int likely;

    private SymbolPlaces(View view, Occurrences occurrences) {
        this.view = view;
        this.occurrences = occurrences;
        for (Occurrences.Place place : occurrences.places()) {
            byFile.computeIfAbsent(new InBranch(place.branchNumber(), place.file()), _ -> new HashMap<>())
                    .put(new Place(place.line(), place.column()), place);
        }
    }

    static SymbolPlaces of(SymbolName name, Scope scope, SearchContext context, int most) {
        return new SymbolPlaces(context.view(), Occurrences.of(name, scope, context, most));
    }

    Set<InBranch> files() {
        return byFile.keySet();
    }

    /** Finds the name in one file, and counts how sure its uses there are. */
    Found.Finder in(InBranch file, MatchFinder text, boolean mentions) {
        Map<Place, Occurrences.Place> places = byFile.getOrDefault(file, Map.of());
        return of -> text.counting(Optional.empty(), (_, _) -> true).in(of).stream()
                .flatMap(found -> {
                    Occurrences.Place place = places.get(new Place(of.line(found.start()), of.column(found.start())));
                    if (place == null && !mentions) {
                        return Stream.of();
                    }
                    return Stream.of(new Found(
                            found.start(),
                            found.end(),
                            found.with(),
                            place == null ? List.of("it is not in code, or another of this name") : counted(place)));
                })
                .toList();
    }

    /** Counts a place, and warns of one that is not sure. */
    private List<String> counted(Occurrences.Place place) {
        if (place.role() != SymbolRole.USE) {
            return List.of();
        }
        uses++;
        return switch (place.certainty().orElse(Certainty.BY_NAME)) {
            case SURE -> {
                sure++;
                yield List.of();
            }
            case LIKELY -> {
                likely++;
                yield List.of("it is likely this one");
            }
            case BY_NAME -> List.of("it has this name, and may be another");
        };
    }

    Replacement.Symbol about() {
        return new Replacement.Symbol(
                occurrences.declarations().size(),
                Navigation.containers(view, occurrences.declarations()).stream()
                        .limit(MOST_CONTAINERS)
                        .toList(),
                uses,
                sure,
                likely,
                occurrences.others());
    }
}
