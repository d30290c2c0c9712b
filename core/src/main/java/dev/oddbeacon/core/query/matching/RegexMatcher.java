package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.LiteralScanner;
import dev.oddbeacon.core.text.regex.LineRegex;
import dev.oddbeacon.core.text.regex.Regex;
import java.lang.foreign.MemorySegment;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * A regular expression, matched line by line, in time linear in the text. Lines that lack the texts of which every
 * match must hold one are passed over without a look.
 */
final class RegexMatcher implements TextMatcher {
    /** Each scans the text once; with more of them, looking at every line is as fast. */
    private static final int MOST_SCANNERS = 4;
    /** Shorter texts stand on so many lines that looking for them first does not pay. In characters. */
    private static final int WORTH_SCANNING = 3;

    private final LineRegex regex;
    private final Plan plan;
    private final List<LiteralScanner> alternatives; // empty if any line may match

    RegexMatcher(Regex tree) {
        regex = LineRegex.of(tree);
        plan = RegexPlan.of(tree);
        List<String> texts = plan.alternatives();
        boolean scans =
                texts.size() <= MOST_SCANNERS && texts.stream().allMatch(text -> text.length() >= WORTH_SCANNING);
        alternatives = scans
                ? texts.stream()
                        .map(literal -> LiteralScanner.of(literal, true))
                        .toList()
                : List.of();
    }

    @Override
    public Plan plan() {
        return plan;
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new RegexFinder(regex.finder(stop));
    }

    private final class RegexFinder implements Finder {
        private final LineRegex.Finder lines;
        private final long[] nextOfAlternative =
                new long[alternatives.size()]; // where each stands next, at or after the current line
        private MemorySegment text = MemorySegment.NULL;
        private long to;
        private long next; // start of the line to look at next
        private boolean onLine;

        RegexFinder(LineRegex.Finder lines) {
            this.lines = lines;
        }

        @Override
        public void begin(MemorySegment text, long low, long high, long from, long to) {
            this.text = text;
            this.to = to;
            this.next = from;
            this.onLine = false;
            Arrays.fill(nextOfAlternative, -1);
        }

        @Override
        public boolean next() {
            if (onLine && lines.nextMatch()) {
                return true;
            }
            onLine = alternatives.isEmpty() ? lines.nextLine(text, next, to) : nextLineWithAlternative();
            if (onLine) {
                next = lines.lineEnd() + 1;
            }
            return onLine;
        }

        private boolean nextLineWithAlternative() {
            while (next < to) {
                long found = nextAlternative(next);
                if (found >= to) {
                    next = to;
                    return false;
                }
                long start = Lines.start(text, found, next);
                long end = Lines.end(text, found, to);
                if (lines.nextLine(text, start, end)) {
                    return true;
                }
                next = end + 1;
            }
            return false;
        }

        /** Offset of the next occurrence of any alternative; {@code to} if none does. */
        private long nextAlternative(long position) {
            long nearest = to;
            for (int i = 0; i < nextOfAlternative.length; i++) {
                if (nextOfAlternative[i] < position) {
                    long found = alternatives.get(i).find(text, position, to);
                    nextOfAlternative[i] = found < 0 ? to : found;
                }
                nearest = Math.min(nearest, nextOfAlternative[i]);
            }
            return nearest;
        }

        @Override
        public void skipLine() {
            onLine = false;
        }

        @Override
        public int countLines() {
            if (!alternatives.isEmpty()) {
                return Finder.super.countLines();
            }
            int count = lines.countLines(text, next, to);
            next = to;
            return count;
        }

        @Override
        public long start() {
            return lines.start();
        }

        @Override
        public long end() {
            return lines.end();
        }
    }
}
