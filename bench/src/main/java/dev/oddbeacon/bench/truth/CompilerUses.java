package dev.oddbeacon.bench.truth;

import java.util.Comparator;
import java.util.List;
import java.util.Set;

/**
 * What a compiler says of the names in some files.
 *
 * @param uses of what is declared in the files
 * @param elsewhere where a name means something that is declared nowhere in the files, or no method and no field
 */
record CompilerUses(List<Use> uses, Set<Place> elsewhere) {
    /** @param line and column of the name, from 1; in UTF-16 units */
    record Place(String path, int line, int column) implements Comparable<Place> {
        private static final Comparator<Place> ORDER =
                Comparator.comparing(Place::path).thenComparingInt(Place::line).thenComparingInt(Place::column);

        @Override
        public int compareTo(Place other) {
            return ORDER.compare(this, other);
        }
    }

    /** @param kind of what is declared: method, field or function */
    record Use(Place place, String name, Place declaration, String kind) {}
}
