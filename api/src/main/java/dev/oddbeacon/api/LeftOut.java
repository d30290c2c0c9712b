package dev.oddbeacon.api;

import java.util.List;

/** The answer to {@code GET /api/v1/search/lines/left-out}: what exclusion sets took away from a search. */
public record LeftOut(List<Set> sets, double tookMillis) {

    /**
     * @param byDefault whether the set applies to every search that does not lift it
     * @param hits lines that would have been found in files of the set
     * @param exact whether the counts are; lower bounds otherwise
     */
    public record Set(String name, boolean byDefault, long hits, int files, boolean exact) {}
}
