package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.Lines;
import java.lang.foreign.MemorySegment;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * Two texts on one line that do not overlap. Of a line that has such a pair, all matches of both count.
 *
 * <p>A pair exists if the first match of one ends before the last match of the other starts: whichever others there
 * are, these two are as far apart as can be.
 */
record OnLineMatcher(TextMatcher left, TextMatcher right) implements TextMatcher {
    @Override
    public Plan plan() {
        return Plan.allOf(List.of(left.plan(), right.plan()));
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        Finder lefts = left.finder(stop);
        Finder rights = right.finder(stop);
        return new SpanListFinder(List.of(lefts, rights)) {
            private final SpanList onLeft = new SpanList();
            private final SpanList onRight = new SpanList();

            @Override
            void find(MemorySegment text, long low, long high, long from, long to, SpanList into) {
                for (long at = from; at < to; ) {
                    lefts.begin(text, low, high, at, to);
                    if (!lefts.next()) {
                        return;
                    }
                    long start = Lines.start(text, lefts.start(), low);
                    long end = Lines.end(text, lefts.start(), to);
                    long feed = Math.min(to, end + 1); // an empty line is a line only with its feed
                    collect(lefts, text, low, high, start, feed, end, onLeft);
                    collect(rights, text, low, high, start, feed, end, onRight);
                    if (arePaired(onLeft, onRight) || arePaired(onRight, onLeft)) {
                        into.addAll(onLeft);
                        into.addAll(onRight);
                    }
                    at = end + 1;
                }
                into.sort();
            }
        };
    }

    private static void collect(
            Finder finder, MemorySegment text, long low, long high, long start, long to, long end, SpanList into) {
        into.clear();
        finder.begin(text, low, high, start, to);
        while (finder.next()) {
            if (finder.end() <= end) {
                into.add(finder.start(), finder.end());
            }
        }
    }

    private static boolean arePaired(SpanList first, SpanList second) {
        if (first.size() == 0 || second.size() == 0) {
            return false;
        }
        long firstEnd = Long.MAX_VALUE;
        for (int i = 0; i < first.size(); i++) {
            firstEnd = Math.min(firstEnd, first.end(i));
        }
        return firstEnd <= second.start(second.size() - 1);
    }
}
