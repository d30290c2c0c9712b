package dev.oddbeacon.core.meaning;

import java.util.List;

/**
 * What a name means where it is used.
 *
 * @param declarations that it may mean, as far as the types that are written tell
 * @param standing how much is known
 * @param arguments how many are given to what is called; -1 if nothing is called or they cannot be counted
 * @param isCall whether something is called by that name
 */
record Meaning(List<Spot> declarations, Standing standing, int arguments, boolean isCall) {
    enum Standing {
        /** One of the declarations, and nothing else. */
        TOLD,
        /** One of the declarations, or something else. */
        GUESSED,
        /** A variable of a function, or something that is declared nowhere in the index. */
        SOMETHING_ELSE,
        /** Nothing is known. */
        UNKNOWN
    }

    static Meaning somethingElse() {
        return new Meaning(List.of(), Standing.SOMETHING_ELSE, -1, false);
    }

    static Meaning unknown(int arguments, boolean isCall) {
        return new Meaning(List.of(), Standing.UNKNOWN, arguments, isCall);
    }
}
