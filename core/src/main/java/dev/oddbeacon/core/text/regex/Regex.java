package dev.oddbeacon.core.text.regex;

import java.util.List;

/** The syntax tree of a regular expression. Groups leave no trace: nobody asks what a group matched. */
public sealed interface Regex {
    /** One code point of a set. */
    record Chars(CharSet set) implements Regex {
        /** The members, if there are at most so many; else none. */
        public int[] few(int most) {
            if (set.size() > most) {
                return new int[0];
            }
            java.util.stream.IntStream.Builder members = java.util.stream.IntStream.builder();
            set.forEach(members);
            return members.build().toArray();
        }
    }

    /** A place between code points. */
    record Edge(EdgeKind kind) implements Regex {}

    record Concat(List<Regex> parts) implements Regex {}

    /** The first alternative that leads to a match is preferred. */
    record Alternate(List<Regex> parts) implements Regex {}

    /**
     * @param max -1 for no limit
     * @param greedy whether more repetitions are preferred to fewer
     */
    record Repeat(Regex part, int min, int max, boolean greedy) implements Regex {}

    /** An assertion about a place. */
    enum EdgeKind {
        /** Nothing. */
        ANYWHERE,
        LINE_START,
        LINE_END,
        /** Between an ASCII word character and another or none. */
        WORD_EDGE,
        NO_WORD_EDGE,
        /** Not inside a word, in the sense of {@link dev.oddbeacon.core.text.Words}, which knows all of Unicode. */
        NOT_IN_WORD
    }

    Regex NOTHING = new Edge(EdgeKind.ANYWHERE);
    Regex NEVER = new Chars(CharSet.NONE);

    /** One given character. */
    static Regex character(int codePoint, boolean ignoreCase) {
        CharSet set = CharSet.of(codePoint);
        return new Chars(ignoreCase ? set.inAnyCase() : set);
    }

    /**
     * The same expression, but for matches that are part of a longer word. An empty match is part of none.
     */
    static Regex whole(Regex regex) {
        Regex edge = new Edge(EdgeKind.NOT_IN_WORD);
        return new Alternate(List.of(new Concat(List.of(edge, regex, edge)), emptyOnly(regex)));
    }

    /** Matches where the expression matches the empty text, and nothing else. */
    private static Regex emptyOnly(Regex regex) {
        return switch (regex) {
            case Chars _ -> NEVER;
            case Edge edge -> edge;
            case Concat concat ->
                new Concat(concat.parts.stream().map(Regex::emptyOnly).toList());
            case Alternate alternate ->
                new Alternate(alternate.parts.stream().map(Regex::emptyOnly).toList());
            case Repeat repeat -> repeat.min == 0 ? NOTHING : emptyOnly(repeat.part);
        };
    }
}
