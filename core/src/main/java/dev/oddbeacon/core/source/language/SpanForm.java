package dev.oddbeacon.core.source.language;

import dev.oddbeacon.core.source.Region;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;

/**
 * How a comment, a string or a quoted name begins and ends.
 *
 * @param region that it makes
 * @param start its first characters
 * @param end its last characters; empty if it goes to the end of the line
 * @param escape the character that takes the meaning from the next one, -1 if there is none
 * @param interpolations what begins a piece of code inside, closed by the bracket that belongs to the last character
 * @param prefixes words of which one must stand directly before; empty if none must
 * @param shape what else must be known to find its end
 */
record SpanForm(
        Region region,
        byte[] start,
        byte[] end,
        int escape,
        List<byte[]> interpolations,
        Set<String> prefixes,
        Set<Option> options,
        Shape shape) {
    /** A prefix that stands for any name. */
    static final String ANY_NAME = "*";

    enum Option {
        /** Comments of the kind stand inside one another. */
        NESTED,
        /** Does not end with the line if its end is missing. */
        MULTILINE,
        /** Its end twice stands for the characters themselves. */
        DOUBLED,
        /** Only at the start of a line. */
        LINE_START,
        /** Only where no word and no value stands directly before. */
        WORD_START,
        /** Only behind blanks at the start of a line. */
        LINE_FIRST,
        /** Not a string, but a name in quotes. */
        NAME
    }

    /** Forms that a start and an end do not describe. */
    enum Shape {
        PLAIN,
        /** As many # after the end as stand before the start: r##"x"##. */
        RAW_HASH,
        /** A delimiter of one's own: R"x(text)x". */
        RAW_DELIMITED,
        /** As many = in the end as in the start: [==[text]==]. */
        LONG_BRACKET,
        /** Three quotes or more, as many at the end as at the start. */
        RAW_QUOTES,
        /** A character in single quotes, which begin other things too. */
        CHARACTER,
        /** A tag between dollars: $tag$ text $tag$. */
        DOLLAR_TAG,
        /** Lines up to one that holds only a word: <<END. */
        HEREDOC,
        /** A regular expression between slashes, where a value may stand. */
        REGEX,
        /** With brackets or any sign for quotes: %w[a b]. */
        PERCENT,
        /** A word that makes quotes of what follows: q{text}, s/a/b/. */
        QUOTE_WORD,
        /** All lines that are indented deeper: the text after | in YAML. */
        BLOCK,
        /** All that follows in the file. */
        REST
    }

    boolean has(Option option) {
        return options.contains(option);
    }

    /** Whether the first characters stand in a text where they count. */
    boolean mayBeginIn(String text) {
        String first = new String(start, StandardCharsets.UTF_8);
        boolean ofLine = has(Option.LINE_FIRST) || has(Option.LINE_START);
        return ofLine ? text.lines().anyMatch(line -> line.strip().startsWith(first)) : text.contains(first);
    }

    /** The same between a bracket and the one that closes it, or between two signs that are equal. */
    SpanForm between(byte open, boolean isRegex) {
        byte close = (byte) (open == '(' ? ')' : open == '[' ? ']' : open == '{' ? '}' : open == '<' ? '>' : open);
        Set<Option> several = open == close ? Set.of(Option.MULTILINE) : Set.of(Option.MULTILINE, Option.NESTED);
        return new SpanForm(
                region,
                new byte[] {open},
                new byte[] {close},
                escape,
                interpolations,
                Set.of(),
                several,
                isRegex ? Shape.REGEX : Shape.PLAIN);
    }

    /** The same, up to where it is told to end. */
    SpanForm withoutEnd() {
        return new SpanForm(
                region, start, new byte[0], escape, interpolations, Set.of(), Set.of(Option.MULTILINE), Shape.PLAIN);
    }
}
