package dev.oddbeacon.client.worktree;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LinesAnswer.Facet;
import dev.oddbeacon.api.SymbolsAnswer;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** What results have in common, counted together. */
final class Shares {
    private Shares() {}

    static LinesAnswer.Facets lines(LinesAnswer.Facets a, LinesAnswer.Facets b) {
        return new LinesAnswer.Facets(
                both(a.repository(), b.repository()),
                both(a.type(), b.type()),
                both(a.trait(), b.trait()),
                both(a.folder(), b.folder()),
                a.spread());
    }

    static SymbolsAnswer.Facets symbols(SymbolsAnswer.Facets a, SymbolsAnswer.Facets b) {
        return new SymbolsAnswer.Facets(
                both(a.kind(), b.kind()),
                both(a.role(), b.role()),
                both(a.certainty(), b.certainty()),
                both(a.repository(), b.repository()),
                both(a.type(), b.type()),
                both(a.trait(), b.trait()));
    }

    static FilesAnswer.Facets files(FilesAnswer.Facets a, FilesAnswer.Facets b) {
        return new FilesAnswer.Facets(
                both(a.repository(), b.repository()), both(a.type(), b.type()), both(a.trait(), b.trait()));
    }

    private static List<Facet> both(List<Facet> a, List<Facet> b) {
        Map<String, Facet> sums = new LinkedHashMap<>();
        Stream.concat(a.stream(), b.stream())
                .forEach(facet -> sums.merge(
                        facet.value(),
                        facet,
                        (one, other) ->
                                new Facet(one.value(), one.files() + other.files(), one.hits() + other.hits())));
        return sums.values().stream()
                .sorted(Comparator.comparingLong(Facet::hits)
                        .thenComparingInt(Facet::files)
                        .reversed())
                .toList();
    }
}
