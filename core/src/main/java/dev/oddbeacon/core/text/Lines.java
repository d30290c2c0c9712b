package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;

/** Lines of a text: they end at a line feed, and what follows the last line feed is a line if it is not empty. */
public final class Lines {
    private Lines() {}

    /** Start of the line that contains an offset. */
    public static long start(MemorySegment text, long offset, long low) {
        long start = offset;
        while (start > low && text.get(ValueLayout.JAVA_BYTE, start - 1) != '\n') {
            start--;
        }
        return start;
    }

    /** End of the line that contains an offset: at its line feed, or at {@code high}. */
    public static long end(MemorySegment text, long offset, long high) {
        long end = ByteScan.CHOSEN.find(text, offset, high, (byte) '\n');
        return end < 0 ? high : end;
    }

    /** Line feeds from start to end. */
    public static int feeds(MemorySegment text, long start, long end) {
        return ByteScan.CHOSEN.count(text, start, end, (byte) '\n');
    }

    /** Number of lines of a whole text. */
    public static int count(MemorySegment text, long start, long end) {
        if (start == end) {
            return 0;
        }
        int feeds = feeds(text, start, end);
        return text.get(ValueLayout.JAVA_BYTE, end - 1) == '\n' ? feeds : feeds + 1;
    }
}
