package dev.oddbeacon.core.meaning;

import java.util.List;

/**
 * A type as it is written.
 *
 * @param parts of its name, qualified or not
 * @param arguments of a generic one
 * @param dimensions of an array of it
 * @param token of the last part of the name
 * @param end the token behind it all
 */
record TypeName(List<String> parts, List<TypeName> arguments, int dimensions, int token, int end) {
    /** The name of a type that is one of its arguments. */
    static final List<String> ONE_OF = List.of("|");
    /** The name of the type around. */
    static final List<String> SELF = List.of("this");

    String last() {
        return parts.getLast();
    }

    TypeName withDimensions(int more) {
        return more == 0 ? this : new TypeName(parts, arguments, dimensions + more, token, end);
    }
}
