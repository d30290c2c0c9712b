package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.ScanStoppedException;
import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;

/** Starts and ends of matches, as offsets, in the order they were found. There may be {@value #MOST} of them. */
final class SpanList {
    private static final int MOST = 1 << 21;

    private long[] starts = new long[16];
    private long[] ends = new long[16];
    private int size;

    void clear() {
        size = 0;
    }

    /** @throws ScanStoppedException if there are too many: the search takes too much memory */
    void add(long start, long end) {
        if (size == MOST) {
            throw new ScanStoppedException();
        }
        if (size == starts.length) {
            starts = Arrays.copyOf(starts, size * 2);
            ends = Arrays.copyOf(ends, size * 2);
        }
        starts[size] = start;
        ends[size++] = end;
    }

    /** Takes all that a finder finds. */
    void addAll(TextMatcher.Finder finder) {
        while (finder.next()) {
            add(finder.start(), finder.end());
        }
    }

    void addAll(SpanList other) {
        for (int i = 0; i < other.size; i++) {
            add(other.starts[i], other.ends[i]);
        }
    }

    /** Orders by start, then by end. */
    void sort() {
        boolean sorted = true;
        for (int i = 1; i < size && sorted; i++) {
            sorted = starts[i - 1] < starts[i] || starts[i - 1] == starts[i] && ends[i - 1] <= ends[i];
        }
        if (sorted) {
            return;
        }
        int[] order = order(Comparator.<Integer>comparingLong(i -> starts[i]).thenComparingLong(i -> ends[i]));
        long[] oldStarts = starts.clone();
        long[] oldEnds = ends.clone();
        for (int i = 0; i < order.length; i++) {
            starts[i] = oldStarts[order[i]];
            ends[i] = oldEnds[order[i]];
        }
    }

    /** Numbers of the matches, ordered by where they end. */
    int[] byEnd() {
        boolean ascends = true;
        for (int i = 1; i < size && ascends; i++) {
            ascends = ends[i - 1] <= ends[i];
        }
        return ascends ? IntStream.range(0, size).toArray() : order(Comparator.comparingLong(i -> ends[i]));
    }

    private int[] order(Comparator<Integer> comparator) {
        return IntStream.range(0, size)
                .boxed()
                .sorted(comparator)
                .mapToInt(Integer::intValue)
                .toArray();
    }

    int size() {
        return size;
    }

    long start(int index) {
        return starts[index];
    }

    long end(int index) {
        return ends[index];
    }
}
