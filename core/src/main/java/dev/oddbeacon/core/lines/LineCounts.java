package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.search.FacetCounts;
import dev.oddbeacon.core.search.Stop;
import java.util.List;
import java.util.Optional;

/**
 * What a search for lines counted, of some repositories or of all.
 *
 * @param hits lines with a match, once for each repository, branch and path
 * @param files that were found, also those that show no line
 * @param exact whether the counts are; lower bounds otherwise
 * @param stopped why not everything was looked at
 */
public record LineCounts(long hits, int files, boolean exact, Optional<Stop> stopped, FacetCounts facets) {
    /** Of nothing. */
    public static final LineCounts NONE = new LineCounts(0, 0, true, Optional.empty(), FacetCounts.NONE);

    /** The counts of several parts together. @param parts that have no repository in common */
    public static LineCounts merged(List<LineCounts> parts) {
        return new LineCounts(
                parts.stream().mapToLong(LineCounts::hits).sum(),
                parts.stream().mapToInt(LineCounts::files).sum(),
                parts.stream().allMatch(LineCounts::exact),
                parts.stream().flatMap(part -> part.stopped.stream()).findFirst(),
                FacetCounts.merged(parts.stream().map(LineCounts::facets).toList()));
    }

    /** The same with less of its facets: see {@link FacetCounts#trimmed}. */
    public LineCounts trimmed() {
        return new LineCounts(hits, files, exact, stopped, facets.trimmed());
    }

    public int repositories() {
        return facets.repositories();
    }
}
