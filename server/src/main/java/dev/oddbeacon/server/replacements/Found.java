package dev.oddbeacon.server.replacements;

import java.util.List;
import java.util.Optional;

/**
 * A part of a text that is replaced, in UTF-16 units.
 *
 * @param with what stands instead; empty if that cannot be told
 * @param warnings what whoever replaces it may want to know
 */
record Found(int start, int end, Optional<String> with, List<String> warnings) {

    /** Finds what is replaced in the text of one file. */
    interface Finder {
        /** @throws StaysException if the file is left as it is */
        List<Found> in(LinedText text) throws StaysException;
    }
}
