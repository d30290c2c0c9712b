package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.search.FacetCounts;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.NamedFile;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;

/**
 * What a search for symbols found in some repositories, or in all.
 *
 * @param close what names tell that fit as they are asked for
 * @param loose what all names tell that fit loosely at least; nothing unless few are close
 */
public record SymbolsFound(Told close, Told loose) {
    /**
     * Places of symbols.
     *
     * @param exact whether there are no others
     * @param stopped why not everything was looked at
     * @param kinds declarations by kind, in no order
     * @param certainties uses by how surely they mean what is asked for, in no order
     * @param first those that may stand on the page
     */
    public record Told(
            long declarations,
            long uses,
            int files,
            boolean exact,
            Optional<Stop> stopped,
            FacetCounts facets,
            List<Share> kinds,
            List<Share> certainties,
            List<At> first) {
        static final Told NONE =
                new Told(0, 0, 0, true, Optional.empty(), FacetCounts.NONE, List.of(), List.of(), List.of());

        long symbols() {
            return declarations + uses;
        }

        List<Share> byKind() {
            return kinds.stream()
                    .sorted(Comparator.comparingLong(Share::hits)
                            .reversed()
                            .thenComparingInt(share ->
                                    Kind.of(share.value()).orElseThrow().code()))
                    .toList();
        }
    }

    /**
     * A name in a piece of a file.
     *
     * @param piece of the file, from 0
     * @param points for how well it fits
     * @param declares whether it is declared there, so many times, or used
     * @param missing what a declaration must stand in
     */
    public record At(
            NamedFile file, int piece, String name, int points, boolean declares, int symbols, List<String> missing) {
        /** Its place in a view; empty if that does not have it. */
        OptionalLong place(View view) {
            OptionalLong place = file.place(view);
            return place.isPresent() && piece < pieces(view, place.getAsLong()) ? place : OptionalLong.empty();
        }

        private static int pieces(View view, long place) {
            return view.location((int) (place >>> 32), (int) place)
                    .map(text -> text.segment().firstPiece(text.blob() + 1)
                            - text.segment().firstPiece(text.blob()))
                    .orElse(0);
        }
    }

    /** Several parts together. @param parts that have no repository in common */
    static Told merged(List<Told> parts) {
        return parts.size() == 1
                ? parts.getFirst()
                : new Told(
                        parts.stream().mapToLong(Told::declarations).sum(),
                        parts.stream().mapToLong(Told::uses).sum(),
                        parts.stream().mapToInt(Told::files).sum(),
                        parts.stream().allMatch(Told::exact),
                        parts.stream().flatMap(part -> part.stopped.stream()).findFirst(),
                        FacetCounts.merged(parts.stream().map(Told::facets).toList()),
                        FacetCounts.added(parts, Told::kinds),
                        FacetCounts.added(parts, Told::certainties),
                        parts.stream().flatMap(part -> part.first.stream()).toList());
    }

    boolean isIn(View view) {
        return Stream.concat(close.first.stream(), loose.first.stream())
                .allMatch(at -> at.place(view).isPresent());
    }
}
