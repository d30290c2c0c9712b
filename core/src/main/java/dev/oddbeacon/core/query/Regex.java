package dev.oddbeacon.core.query;

import java.util.List;

/** The syntax tree of a regular expression, as far as it says which characters a match must have. */
sealed interface Regex {
    /** One given character. */
    record Char(int codePoint) implements Regex {}

    /** One of few given characters. */
    record OneOf(List<Integer> codePoints) implements Regex {}

    /** One character of a large or unknown set. */
    record Wide() implements Regex {}

    /** No character: an assertion, or nothing at all. */
    record Edge() implements Regex {}

    record Concat(List<Regex> parts) implements Regex {}

    record Alternate(List<Regex> parts) implements Regex {}

    /** @param max -1 for no limit */
    record Repeat(Regex part, int min, int max) implements Regex {}
}
