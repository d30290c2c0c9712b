package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.query.matching.Plan;
import java.util.List;

/** Decides which names match, and how well. Immutable; each thread takes a {@link Judge} of its own. */
interface NameMatcher {
    /** The value of {@link Judge#points} for a name that does not match. */
    int NOT_MEANT = 0;

    /** The plan for the index of names. */
    Plan plan();

    /** The known common prefix of all matching names, in lower case; empty if nothing is. */
    String beginning();

    Judge judge();

    /** Whether names have to be told that only have the letters, with others between. */
    default boolean hasLooseJudge() {
        return false;
    }

    /** Prefixes of names that are judged loosely, in lower case; with an empty one, all names are. */
    default List<String> looseBeginnings() {
        return List.of("");
    }

    /** Names are judged loosely when fewer than so many places are found. */
    default int few() {
        return 1;
    }

    /** Judges names loosely as well: by the first letters of their parts, or without what separates their parts. */
    default Judge looseJudge() {
        return judge();
    }

    /** Judges one name after another. For one thread. */
    interface Judge {
        /**
         * How well a name fits, from 1 to 100; {@link #NOT_MEANT} if it does not.
         *
         * @param names UTF-8, the name from start to before end, followed by a line feed
         */
        int points(byte[] names, int start, int end);

        /**
         * What the declaration of a name that fits must stand in, besides: each of these, folded, in some part of its
         * container; empty if nothing.
         */
        default List<String> missing() {
            return List.of();
        }
    }
}
