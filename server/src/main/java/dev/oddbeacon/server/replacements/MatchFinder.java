package dev.oddbeacon.server.replacements;

import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import java.util.Optional;

/** Finds the matches of a search in a text, and what stands instead of each. */
interface MatchFinder {
    int MOST = 50_000; // of a file

    /**
     * The matches in their order; at most one more than {@link #MOST}.
     *
     * @param language of the text; empty if there is no profile for it
     */
    List<Found> matches(String text, Optional<Language> language);

    /** Whether a match counts, by where it begins. */
    interface Counts {
        boolean at(int line, int column);
    }

    default Found.Finder counting(Optional<Language> language, Counts counts) {
        return text -> {
            List<Found> all = matches(text.text(), language);
            if (all.size() > MOST) {
                throw new StaysException("it has more than " + MOST + " matches");
            }
            return all.stream()
                    .filter(found -> counts.at(text.line(found.start()), text.column(found.start())))
                    .toList();
        };
    }
}
