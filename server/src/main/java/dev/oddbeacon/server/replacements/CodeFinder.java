package dev.oddbeacon.server.replacements;

import dev.oddbeacon.core.replace.ShapeReplacement;
import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import java.util.Optional;

/** Finds code of a shape. */
record CodeFinder(ShapeReplacement replacement) implements MatchFinder {
    @Override
    public List<Found> matches(String text, Optional<Language> language) {
        return replacement.in(text, language, MOST + 1).stream()
                .map(change -> new Found(change.start(), change.end(), Optional.of(change.with()), List.of()))
                .toList();
    }
}
