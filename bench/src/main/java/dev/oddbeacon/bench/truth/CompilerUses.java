package dev.oddbeacon.bench.truth;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What a compiler says of the names in some files.
 *
 * @param uses of what is declared in the files
 * @param elsewhere where a name means something that is declared nowhere in the files, or no method and no field
 * @param relations between what is declared in the files; empty if the compiler is not asked for them
 */
record CompilerUses(List<Use> uses, Set<Place> elsewhere, List<Relation> relations) {
    /** What one declaration says of another that is declared in the files as well. */
    enum Relating {
        /** A type extends or implements another, right away. */
        EXTENDS,
        /** A method overrides or implements another, at any distance. */
        OVERRIDES
    }

    record Relation(Relating how, Place from, Place to) {}

    /** @param line and column of the name, from 1; in UTF-16 units */
    record Place(String path, int line, int column) implements Comparable<Place> {
        private static final Comparator<Place> ORDER =
                Comparator.comparing(Place::path).thenComparingInt(Place::line).thenComparingInt(Place::column);

        @Override
        public int compareTo(Place other) {
            return ORDER.compare(this, other);
        }
    }

    /** Reads what a script has written; its first lines say how. */
    static CompilerUses read(Path dump) throws IOException {
        List<Use> uses = new ArrayList<>();
        Set<Place> elsewhere = new HashSet<>();
        for (String line : Files.readAllLines(dump)) {
            List<String> parts = List.of(line.split("\t", -1));
            switch (parts.getFirst()) {
                case "U" -> uses.add(new Use(place(parts, 1), parts.get(4), place(parts, 5), parts.get(8)));
                case "E" -> elsewhere.add(place(parts, 1));
                default -> {}
            }
        }
        return new CompilerUses(uses, elsewhere, List.of());
    }

    private static Place place(List<String> parts, int at) {
        return new Place(parts.get(at), Integer.parseInt(parts.get(at + 1)), Integer.parseInt(parts.get(at + 2)));
    }

    /** @param kind of what is declared: method, field or function */
    record Use(Place place, String name, Place declaration, String kind) {}
}
