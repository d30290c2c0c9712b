package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import java.util.List;
import java.util.Optional;

/**
 * A member of a type, or what stands in none where a language has such.
 *
 * @param type of a field, or of what a method returns; empty if it is not written
 * @param parameters of what can be called; empty for others
 * @param takesMore whether the last parameter stands for any number of arguments
 * @param least how many arguments it needs
 * @param variables the type parameters of its own
 * @param isAccessor whether it is declared like a method and used like a field
 */
record Member(
        Spot spot,
        Optional<TypeName> type,
        List<TypeName> parameters,
        boolean takesMore,
        int least,
        List<TypeVariable> variables,
        boolean isAccessor) {
    Declared declared() {
        return spot.declared();
    }

    /** Whether it can be called with so many arguments; any number if they are not known. */
    boolean takes(int arguments) {
        return arguments < 0 || arguments >= least && (takesMore || arguments <= parameters.size());
    }
}
