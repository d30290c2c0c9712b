package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.source.Region;
import java.util.List;

/**
 * What a compiler says of a file.
 *
 * @param declarations names, each with its line
 * @param regions that are not code; empty if the compiler does not say
 */
record Truth(String path, List<Declared> declarations, List<Span> regions) {
    /** @param line from 1 */
    record Declared(String name, int line) {}

    /** Offsets in bytes. */
    record Span(Region region, int start, int end) {}
}
