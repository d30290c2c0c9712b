package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.LiteralScanner;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Comparator;
import java.util.function.BooleanSupplier;

/** A text, literally. It may span lines. */
final class PlainMatcher implements TextMatcher {
    private final boolean word;
    private final boolean staysOnLine;
    private final Plan plan;
    private final LiteralScanner scanner;

    PlainMatcher(String text, CaseMode caseMode, boolean word) {
        this.word = word;
        this.staysOnLine = !text.contains("\n");
        String longestLine =
                text.lines().max(Comparator.comparingInt(String::length)).orElse("");
        this.plan = Plan.holds(longestLine);
        this.scanner = LiteralScanner.of(text, caseMode.ignores(text));
    }

    @Override
    public Plan plan() {
        return plan;
    }

    @Override
    public boolean staysOnLine() {
        return staysOnLine;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new PlainFinder();
    }

    private final class PlainFinder implements Finder {
        private MemorySegment text = MemorySegment.NULL;
        private long low;
        private long high;
        private long to;
        private long position;
        private long start;
        private long end;

        @Override
        public void begin(MemorySegment text, long low, long high, long from, long to) {
            this.text = text;
            this.low = low;
            this.high = high;
            this.position = from;
            this.to = to;
        }

        @Override
        public boolean next() {
            while (position < to) {
                start = scanner.find(text, position, to);
                if (start < 0) {
                    position = to;
                    return false;
                }
                end = scanner.end(text, start, to);
                if (!word || Words.isWhole(text, low, start, end, high)) {
                    position = end;
                    return true;
                }
                position = start + Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, start));
            }
            return false;
        }

        @Override
        public void skipLine() {
            position = Lines.end(text, end, to) + 1;
        }

        @Override
        public long start() {
            return start;
        }

        @Override
        public long end() {
            return end;
        }
    }
}
