package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
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
        return new SpanListFinder(List.of(lefts, rights)) {
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
                onLeft.addNear(onRight, new Gap(text, high, words), into);
                onRight.addNear(onLeft, new Gap(text, high, words), into);
                into.sort();
            }
        };
    }

    /** The matches of one text, by start and by end. */
    private static final class Side {
        private final SpanList spans = new SpanList();
        private int[] byEnd = {};

        void fill(Finder finder, MemorySegment text, long low, long high, long from, long to) {
            spans.clear();
            finder.begin(text, low, high, from, to);
            spans.addAll(finder);
            byEnd = spans.byEnd();
        }

        /** Adds the matches of this side that stand near one of the other: if any does, the nearest does. */
        void addNear(Side other, Gap gap, SpanList into) {
            for (int i = 0; i < spans.size(); i++) {
                int after = other.firstFrom(spans.end(i));
                int before = other.endedAt(spans.start(i)) - 1;
                boolean isNear = after < other.spans.size() && gap.isSmall(spans.end(i), other.spans.start(after))
                        || before >= 0 && gap.isSmall(other.spans.end(other.byEnd[before]), spans.start(i));
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

        /** Number of matches that end at or before an offset. */
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

    /** The gap between two matches. */
    private record Gap(MemorySegment text, long high, int words) {
        /** Whether at most so many whole words stand from start to end. Looks no further than it takes to know. */
        boolean isSmall(long from, long to) {
            boolean inWord =
                    from > 0 && from < to && Words.isWordPart(Utf8.at(text, from, high)) && isAfterWordPart(from);
            boolean counts = !inWord;
            int count = 0;
            for (long at = from; at < to; at += Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, at))) {
                boolean isPart = Words.isWordPart(Utf8.at(text, at, high));
                if (inWord && !isPart && counts && ++count > words) {
                    return false;
                }
                counts |= !isPart;
                inWord = isPart;
            }
            boolean endsWithWord = inWord && counts && (to >= high || !Words.isWordPart(Utf8.at(text, to, high)));
            return count + (endsWithWord ? 1 : 0) <= words;
        }

        private boolean isAfterWordPart(long place) {
            return Words.isWordPart(Utf8.before(text, place, 0));
        }
    }
}
