package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.regex.Regex.EdgeKind;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A regular expression as steps over the bytes of UTF-8 text: what {@link LineAutomaton} and {@link SpanFinder} run.
 * The construction is Thompson's ("Regular Expression Search Algorithm", 1968); sets of code points become sequences
 * of byte ranges that share their ends, as in {@code [α-ω]}: CE [B1-BF] or CF [80-89]. Immutable.
 *
 * <p>Every step has a number. What a step means depends on its kind:
 * <pre>
 *   BYTES   a byte from low to high, then next
 *   SPLIT   next or else, next being preferred
 *   EDGE    the place is of a kind, then next
 *   MATCH   the end
 * </pre>
 */
public final class Program {
    static final byte BYTES = 0;
    static final byte SPLIT = 1;
    static final byte EDGE = 2;
    static final byte MATCH = 3;
    private static final int MOST_STEPS = 60_000;
    private static final EdgeKind[] KINDS = EdgeKind.values();

    private byte[] kinds = new byte[64];
    private int[] next = new int[64];
    private int[] other = new int[64]; // SPLIT: the second choice; BYTES: low << 8 | high; EDGE: ordinal of the kind
    private int steps;
    private final int start;
    private final byte[] classOf = new byte[256];
    private final int classes;
    private boolean asksForLineStart;
    private boolean asksForWords;
    private boolean asksForUnicodeWords;
    private final Map<Long, Integer> tails = new HashMap<>(); // of the set at hand: steps that may be shared

    private Program(Regex regex) {
        int match = add(MATCH, 0, 0);
        start = compile(regex, match);
        kinds = Arrays.copyOf(kinds, steps);
        next = Arrays.copyOf(next, steps);
        other = Arrays.copyOf(other, steps);
        tails.clear();
        classes = classify();
    }

    /** @throws RegexSyntaxException if it becomes too large */
    public static Program of(Regex regex) {
        return new Program(regex);
    }

    int start() {
        return start;
    }

    int steps() {
        return steps;
    }

    byte kind(int step) {
        return kinds[step];
    }

    int next(int step) {
        return next[step];
    }

    /** The second choice of a SPLIT. */
    int other(int step) {
        return other[step];
    }

    EdgeKind edge(int step) {
        return KINDS[other[step]];
    }

    boolean takes(int step, int value) {
        return value >= other[step] >> 8 && value <= (other[step] & 0xFF);
    }

    /** Bytes of one class are told apart by no step, nor as parts of words, nor as beginnings of code points. */
    byte[] classOf() {
        return classOf;
    }

    int classes() {
        return classes;
    }

    boolean asksForLineStart() {
        return asksForLineStart;
    }

    boolean asksForWords() {
        return asksForWords || asksForUnicodeWords;
    }

    /** Whether some edges depend on words of all of Unicode, which the automaton knows only in ASCII. */
    boolean asksForUnicodeWords() {
        return asksForUnicodeWords;
    }

    private int add(byte kind, int nextStep, int otherStep) {
        if (steps == MOST_STEPS) {
            throw new RegexSyntaxException(
                    "The regular expression becomes more than " + MOST_STEPS
                            + " steps. Use smaller counts, * or +, or fewer Unicode classes.",
                    0,
                    false);
        }
        if (steps == kinds.length) {
            kinds = Arrays.copyOf(kinds, steps * 2);
            next = Arrays.copyOf(next, steps * 2);
            other = Arrays.copyOf(other, steps * 2);
        }
        kinds[steps] = kind;
        next[steps] = nextStep;
        other[steps] = otherStep;
        return steps++;
    }

    /** Compiles backwards: what comes after is known first. @return the first step */
    private int compile(Regex regex, int after) {
        return switch (regex) {
            case Regex.Chars chars -> chars(chars.set(), after);
            case Regex.Edge edge -> edge(edge.kind(), after);
            case Regex.Concat concat -> {
                int first = after;
                for (Regex part : concat.parts().reversed()) {
                    first = compile(part, first);
                }
                yield first;
            }
            case Regex.Alternate alternate -> {
                List<Regex> parts = alternate.parts();
                int first = compile(parts.getLast(), after);
                for (Regex part : parts.subList(0, parts.size() - 1).reversed()) {
                    first = add(SPLIT, compile(part, after), first);
                }
                yield first;
            }
            case Regex.Repeat repeat -> repeat(repeat, after);
        };
    }

    private int edge(EdgeKind kind, int after) {
        switch (kind) {
            case LINE_START -> asksForLineStart = true;
            case WORD_EDGE, NO_WORD_EDGE -> asksForWords = true;
            case NOT_IN_WORD -> asksForUnicodeWords = true;
            default -> {}
        }
        return kind == EdgeKind.ANYWHERE ? after : add(EDGE, after, kind.ordinal());
    }

    /** x{2,4} becomes xx(x(x)?)?, x{2,} becomes x(x)+, and x+ a body that may go back to its beginning. */
    private int repeat(Regex.Repeat repeat, int after) {
        int first = after;
        int copies = repeat.min();
        if (repeat.max() < 0) {
            int loop = add(SPLIT, 0, 0);
            int body = compile(repeat.part(), loop);
            next[loop] = repeat.greedy() ? body : after;
            other[loop] = repeat.greedy() ? after : body;
            if (repeat.min() > 0) {
                first = body;
            } else if (!canBeEmpty(repeat.part())) {
                first = loop;
            } else { // as (x+)?, or an empty x would count as less preferred than it is
                first = repeat.greedy() ? add(SPLIT, body, after) : add(SPLIT, after, body);
            }
            copies--;
        } else {
            for (int i = repeat.min(); i < repeat.max(); i++) {
                int body = compile(repeat.part(), first);
                first = repeat.greedy() ? add(SPLIT, body, after) : add(SPLIT, after, body);
            }
        }
        for (int i = 0; i < copies; i++) {
            first = compile(repeat.part(), first);
        }
        return first;
    }

    private static boolean canBeEmpty(Regex regex) {
        return switch (regex) {
            case Regex.Chars _ -> false;
            case Regex.Edge _ -> true;
            case Regex.Concat concat -> concat.parts().stream().allMatch(Program::canBeEmpty);
            case Regex.Alternate alternate -> alternate.parts().stream().anyMatch(Program::canBeEmpty);
            case Regex.Repeat repeat -> repeat.min() == 0 || canBeEmpty(repeat.part());
        };
    }

    /** A set is the alternative of its sequences of byte ranges. */
    private int chars(CharSet set, int after) {
        tails.clear();
        int first = -1;
        for (int i = 0; i < set.ranges().length; i += 2) {
            for (int[] sequence : Utf8Ranges.of(set.ranges()[i], set.ranges()[i + 1])) {
                int step = after;
                for (int k = sequence.length - 1; k >= 0; k--) {
                    step = shared(sequence[k], step);
                }
                first = first < 0 ? step : first == step ? first : add(SPLIT, first, step);
            }
        }
        return first < 0 ? add(BYTES, after, 1 << 8) : first; // low above high: takes nothing
    }

    private int shared(int range, int after) {
        long key = (long) range << 32 | after;
        Integer known = tails.get(key);
        if (known == null) {
            known = add(BYTES, after, range);
            tails.put(key, known);
        }
        return known;
    }

    private int classify() {
        boolean[] begins = new boolean[257];
        begins[0] = begins['\n'] = begins['\n' + 1] = begins[0x80] = begins[0xC0] = true;
        for (int step = 0; step < steps; step++) {
            if (kinds[step] == BYTES) {
                begins[other[step] >> 8] = true;
                begins[(other[step] & 0xFF) + 1] = true;
            }
        }
        if (asksForWords()) {
            for (int value = 1; value < 0x80; value++) {
                begins[value] |= isWordByte(value) != isWordByte(value - 1);
            }
        }
        int number = -1;
        for (int value = 0; value < 256; value++) {
            number += begins[value] ? 1 : 0;
            classOf[value] = (byte) number;
        }
        return number + 1;
    }

    static boolean isWordByte(int value) {
        return value >= 'a' && value <= 'z'
                || value >= 'A' && value <= 'Z'
                || value >= '0' && value <= '9'
                || value == '_';
    }
}
