package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.function.BooleanSupplier;

/**
 * A regular expression that looks at one line at a time. Which lines match is the automaton's matter, at full speed;
 * where on the line is asked of the span finder, and only if somebody wants to know. Immutable.
 */
public final class LineRegex {
    private final Program program;

    private LineRegex(Program program) {
        this.program = program;
    }

    /** @throws RegexSyntaxException if it becomes too large */
    public static LineRegex of(Regex regex) {
        return new LineRegex(Program.of(regex));
    }

    /** @param stop asked now and then; once it says yes, {@link dev.oddbeacon.core.text.ScanStoppedException} is thrown */
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
                long found = automaton.find(text, at, to);
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

        /** Lines with a match between two offsets, as for {@link #nextLine}. */
        public int countLines(MemorySegment text, long from, long to) {
            if (!program.asksForUnicodeWords()) {
                return automaton.count(text, from, to);
            }
            int count = 0;
            for (long at = from; nextLine(text, at, to); at = lineEnd + 1) {
                count++;
            }
            return count;
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
            return position >= lineEnd ? lineEnd + 1 : position + Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, position));
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
