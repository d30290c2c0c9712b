package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.source.Region;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * What a compiler says of a file.
 *
 * @param declarations names, each with its line
 * @param regions that are not code; empty if the compiler does not say
 * @param untold lines, from 1, of whose declarations it says nothing
 */
record Truth(String path, List<Declared> declarations, List<Span> regions, BitSet untold) {
    /**
     * @param line from 1, of its name
     * @param end the line that it ends on, if the compiler says
     * @param container what it stands in, qualified, if the compiler says; empty for nothing but its file
     */
    record Declared(String name, int line, OptionalInt end, Optional<String> container) {
        Declared(String name, int line) {
            this(name, line, OptionalInt.empty(), Optional.empty());
        }
    }

    /** Offsets in bytes. */
    record Span(Region region, int start, int end) {}
}
