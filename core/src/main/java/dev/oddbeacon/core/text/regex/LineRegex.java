package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/**
 * A regular expression that looks at one line at a time. Which lines match is the automaton's matter, at full speed;
 * where on the line is asked of the span finder, and only if somebody wants to know. Immutable.
 */
public final class LineRegex {
    /**
     * Where the automaton has to look at more than one byte in so many all the same, looking for required bytes first
     * does not pay.
     */
    private static final int WORTH_LOOKING_FIRST = 4;
    /** The same where the automaton has few states, and is faster by that. */
    private static final int WORTH_LOOKING_FIRST_IF_SMALL = 12;
    /** Bytes after which the past counts half. */
    private static final long FORGETTING = 1 << 20;

    /** Where matches are at least so long, short lines are passed over. In characters. */
    private static final int WORTH_MEASURING = 40;

    private final Program program;
    private final Optional<RequiredRun> required;
    private final int shortest; // match, in characters

    private LineRegex(Program program, Optional<RequiredRun> required, int shortest) {
        this.program = program;
        this.required = required;
        this.shortest = shortest;
    }

    /** @throws RegexSyntaxException if it becomes too large */
    public static LineRegex of(Regex regex) {
        return new LineRegex(Program.of(regex), RequiredRun.of(regex), shortest(regex));
    }

    private static int shortest(Regex regex) {
        long length = switch (regex) {
            case Regex.Chars _ -> 1;
            case Regex.Edge _ -> 0;
            case Regex.Concat concat ->
                concat.parts().stream().mapToLong(LineRegex::shortest).sum();
            case Regex.Alternate alternate ->
                alternate.parts().stream().mapToLong(LineRegex::shortest).min().orElse(0);
            case Regex.Repeat repeat -> (long) repeat.min() * shortest(repeat.part());
        };
        return (int) Math.min(length, Integer.MAX_VALUE);
    }

    /**
     * @param stop asked now and then; once it says yes, {@link dev.oddbeacon.core.text.ScanStoppedException} is thrown
     */
    public Finder finder(BooleanSupplier stop) {
        return new Finder(stop);
    }

    /** Goes through lines and their matches. For one thread. */
    public final class Finder {
        private final LineAutomaton automaton;
        private final SpanFinder spans;
        private MemorySegment text = MemorySegment.NULL;
        private long lineStart;
        private long lineEnd;
        private long lastEnd; // of the match before on this line, -1 if none
        private long counted; // bytes in which lines were counted, and how many of them the automaton looked at
        private long looked;
        private boolean located; // whether the span of the current match is known

        private Finder(BooleanSupplier stop) {
            automaton = new LineAutomaton(program, stop);
            spans = new SpanFinder(program, stop);
        }

        /**
         * Goes to the first match of the next line that has one.
         *
         * @param from the start of a line
         * @param to the end of a line or of the text
         */
        public boolean nextLine(MemorySegment text, long from, long to) {
            this.text = text;
            long at = from;
            while (at < to) {
                long found = find(text, at, to);
                if (found < 0) {
                    return false;
                }
                lineStart = Lines.start(text, found, at);
                lineEnd = Lines.end(text, found, to);
                lastEnd = -1;
                located = false;
                if (!program.asksForUnicodeWords() || Utf8.isAscii(text, lineStart, lineEnd)) {
                    return true;
                }
                located = spans.find(text, lineStart, lineEnd, lineStart);
                if (located) {
                    return true;
                }
                at = lineEnd + 1;
            }
            return false;
        }

        /** An offset on the next line with a match, as {@link LineAutomaton#find} gives it. */
        private long find(MemorySegment text, long from, long to) {
            if (required.isEmpty()) {
                return automaton.find(text, from, to);
            }
            RequiredRun wanted = required.get();
            long at = from;
            while (at < to) {
                long start = nextWithRun(wanted, text, at, to);
                if (start < 0) {
                    return -1;
                }
                long end = Lines.end(text, start, to);
                long found = automaton.find(text, start, Math.min(end + 1, to));
                if (found >= 0) {
                    return found;
                }
                at = end + 1;
            }
            return -1;
        }

        /** The start of the next line that has the bytes that are asked for; -1 if there is none. */
        private long nextWithRun(RequiredRun wanted, MemorySegment text, long from, long to) {
            boolean feedBefore = from > 0 && text.get(ValueLayout.JAVA_BYTE, from - 1) == '\n';
            if (wanted.startsAtFeed() && !feedBefore) {
                return from;
            }
            boolean feedBehind = to < text.byteSize() && text.get(ValueLayout.JAVA_BYTE, to) == '\n';
            long found = wanted.run()
                    .find(
                            text,
                            wanted.startsAtFeed() ? from - 1 : from,
                            wanted.endsAtFeed() && feedBehind ? to + 1 : to);
            long on = found + (wanted.startsAtFeed() ? 1 : 0);
            if (found >= 0 && on < to) {
                return Lines.start(text, on, from);
            }
            boolean lastIsOpen = wanted.endsAtFeed() && !feedBehind && text.get(ValueLayout.JAVA_BYTE, to - 1) != '\n';
            return lastIsOpen ? Lines.start(text, to, from) : -1;
        }

        /** Lines with a match between two offsets, as for {@link #nextLine}. */
        public int countLines(MemorySegment text, long from, long to) {
            if (shortest >= WORTH_MEASURING) {
                return countLongLines(text, from, to);
            }
            if (program.asksForUnicodeWords()) {
                int count = 0;
                for (long at = from; nextLine(text, at, to); at = lineEnd + 1) {
                    count++;
                }
                return count;
            }
            counted += to - from;
            if (counted > FORGETTING) {
                counted /= 2;
                looked /= 2;
            }
            int worth = automaton.isSmall() ? WORTH_LOOKING_FIRST_IF_SMALL : WORTH_LOOKING_FIRST;
            if (required.isEmpty() || looked > FORGETTING / 64 && looked > counted / worth) {
                return automaton.count(text, from, to);
            }
            int count = 0;
            long end;
            for (long at = from; at < to; at = end + 1) {
                long start = nextWithRun(required.get(), text, at, to);
                if (start < 0) {
                    break;
                }
                end = Lines.end(text, start, to);
                count += matches(text, start, end, to) ? 1 : 0;
                looked += end + 1 - start;
            }
            return count;
        }

        private int countLongLines(MemorySegment text, long from, long to) {
            int count = 0;
            long end;
            for (long start = from; to - start >= shortest; start = end + 1) {
                end = Lines.end(text, start, to);
                count += end - start >= shortest && matches(text, start, end, to) ? 1 : 0;
            }
            return count;
        }

        /**
         * Whether one line matches.
         *
         * @param end its line feed, or the end of the text
         * @param to the end of the text that is looked at
         */
        private boolean matches(MemorySegment text, long start, long end, long to) {
            if (program.asksForUnicodeWords() && !Utf8.isAscii(text, start, end)) {
                return spans.find(text, start, end, start);
            }
            return automaton.find(text, start, Math.min(end + 1, to)) >= 0;
        }

        /** Goes to the next match of the line; it does not touch the one before if it is empty. */
        public boolean nextMatch() {
            locate();
            lastEnd = spans.end();
            long from = spans.end() > spans.start() ? spans.end() : after(spans.end());
            while (from <= lineEnd && spans.find(text, lineStart, lineEnd, from)) {
                boolean abutsAsEmpty = spans.start() == spans.end() && spans.start() == lastEnd;
                if (!abutsAsEmpty) {
                    return true;
                }
                from = after(spans.end());
            }
            return false;
        }

        private long after(long position) {
            return position >= lineEnd
                    ? lineEnd + 1
                    : position + Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, position));
        }

        private void locate() {
            if (!located) {
                located = true;
                if (!spans.find(text, lineStart, lineEnd, lineStart)) {
                    throw new IllegalStateException("no match on a line that has one");
                }
            }
        }

        public long start() {
            locate();
            return spans.start();
        }

        public long end() {
            locate();
            return spans.end();
        }

        public long lineEnd() {
            return lineEnd;
        }
    }
}
