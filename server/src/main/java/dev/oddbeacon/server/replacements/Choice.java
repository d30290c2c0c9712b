package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** What somebody leaves as it is, and what has a replacement of its own, by their places. */
record Choice(Set<String> except, Map<String, String> own) {
    static Choice of(Replacement wanted) {
        return new Choice(
                new HashSet<>(Objects.requireNonNullElse(wanted.except(), List.of())),
                new HashMap<>(Objects.requireNonNullElse(wanted.own(), Map.of())));
    }

    /** The place of a file. */
    static String place(String repository, String path) {
        return repository + "/" + path;
    }

    static String place(String repository, String path, int line, int column) {
        return place(repository, path) + ":" + line + ":" + column;
    }

    static String placeOfPath(String repository, String path) {
        return place(repository, path) + ":path";
    }

    boolean leaves(String place) {
        return except.contains(place);
    }

    Optional<String> ownOf(String place) {
        return Optional.ofNullable(own.get(place));
    }
}
