package dev.oddbeacon.core.query;

import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * Two texts that do not overlap, with at most so many words between them, in either order, also over line ends. All
 * matches that stand near one of the other text count. A word that a match touches is not between.
 */
record NearMatcher(int words, TextMatcher left, TextMatcher right) implements TextMatcher {
    @Override
    public Plan plan() {
        return Plan.allOf(List.of(left.plan(), right.plan()));
    }

    @Override
    public boolean staysOnLine() {
        return false;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        Finder lefts = left.finder(stop);
        Finder rights = right.finder(stop);
        return new SpanListFinder() {
            private final Side onLeft = new Side();
            private final Side onRight = new Side();

            @Override
            void find(MemorySegment text, long low, long high, long from, long to, SpanList into) {
                onLeft.fill(lefts, text, low, high, from, to);
                if (onLeft.spans.size() == 0) {
                    return;
                }
                onRight.fill(rights, text, low, high, from, to);
                if (onRight.spans.size() == 0) {
                    return;
                }
                onLeft.countWords(text, low, high);
                onRight.countWords(text, low, high);
                onLeft.addNear(onRight, words, into);
                onRight.addNear(onLeft, words, into);
                into.sort();
            }
        };
    }

    /** The matches of one text, and between which words they stand. */
    private static final class Side {
        private final SpanList spans = new SpanList();
        private int[] firstWord = new int[0]; // number of the first word that the match touches, or of the next if it touches none
        private int[] lastWord = new int[0]; // number of the last that it touches, or of the one before
        private Integer[] byEnd = {};

        void fill(Finder finder, MemorySegment text, long low, long high, long from, long to) {
            spans.clear();
            finder.begin(text, low, high, from, to);
            spans.addAll(finder);
        }

        void countWords(MemorySegment text, long low, long high) {
            firstWord = new int[spans.size()];
            lastWord = new int[spans.size()];
            byEnd = new Integer[spans.size()];
            Arrays.setAll(byEnd, i -> i);
            Arrays.sort(byEnd, Comparator.comparingLong(spans::end));
            Count starts = new Count(text, low, high);
            for (int i = 0; i < spans.size(); i++) {
                long start = spans.start(i);
                int before = starts.startsBefore(start);
                boolean inside = start > low && start < high && Words.isWordPart(Utf8.before(text, start, low)) && Words.isWordPart(Utf8.at(text, start, high));
                firstWord[i] = inside && spans.end(i) > start ? before : before + 1;
            }
            Count ends = new Count(text, low, high);
            for (int i : byEnd) {
                lastWord[i] = ends.startsBefore(spans.end(i));
            }
        }

        /** Adds the matches of this side that stand near one of the other. */
        void addNear(Side other, int words, SpanList into) {
            for (int i = 0; i < spans.size(); i++) {
                int after = other.firstFrom(spans.end(i));
                int before = other.endedAt(spans.start(i)) - 1;
                boolean isNear = after < other.spans.size() && other.firstWord[after] - lastWord[i] - 1 <= words
                        || before >= 0 && firstWord[i] - other.lastWord[other.byEnd[before]] - 1 <= words;
                if (isNear) {
                    into.add(spans.start(i), spans.end(i));
                }
            }
        }

        /** The first match that starts at or after a place. */
        private int firstFrom(long place) {
            int low = 0;
            int high = spans.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (spans.start(middle) < place) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            return low;
        }

        /** How many matches end at or before a place. */
        private int endedAt(long place) {
            int low = 0;
            int high = spans.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (spans.end(byEnd[middle]) <= place) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            return low;
        }
    }

    /** Counts words from the beginning of the text; asked for ascending places. */
    private static final class Count {
        private final MemorySegment text;
        private final long high;
        private long at;
        private boolean inWord;
        private int starts;

        Count(MemorySegment text, long low, long high) {
            this.text = text;
            this.high = high;
            this.at = low;
        }

        /** How many words start before a place. */
        int startsBefore(long place) {
            while (at < place) {
                boolean isPart = Words.isWordPart(Utf8.at(text, at, high));
                starts += isPart && !inWord ? 1 : 0;
                inWord = isPart;
                at += Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, at));
            }
            return starts;
        }
    }
}
