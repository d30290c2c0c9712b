package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.source.Region;
import java.util.Set;
import java.util.function.BooleanSupplier;

/** The matches of a text that lie wholly in certain regions. */
record InRegionMatcher(Set<Region> regions, TextMatcher inner) implements TextMatcher {
    @Override
    public Plan plan() {
        return inner.plan();
    }

    @Override
    public boolean staysOnLine() {
        return inner.staysOnLine();
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new FilteredFinder(inner.finder(stop)) {
            @Override
            boolean takes(FileParts parts, long start, long end) {
                long at = start;
                do {
                    if (!regions.contains(parts.region(at))) {
                        return false;
                    }
                    at = parts.regionEnd();
                } while (at < end);
                return true;
            }
        };
    }
}
