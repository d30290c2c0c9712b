package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;

/** One byte at a time. */
final class PlainByteScan implements ByteScan {
    @Override
    public long find(MemorySegment text, long start, long end, byte value) {
        for (long i = start; i < end; i++) {
            if (text.get(ValueLayout.JAVA_BYTE, i) == value) {
                return i;
            }
        }
        return -1;
    }

    @Override
    public int count(MemorySegment text, long start, long end, byte value) {
        int count = 0;
        for (long i = start; i < end; i++) {
            if (text.get(ValueLayout.JAVA_BYTE, i) == value) {
                count++;
            }
        }
        return count;
    }

    @Override
    public long findPair(MemorySegment text, long start, long end, Anchor anchor) {
        for (long i = start; i < end; i++) {
            if (anchor.at(text, i)) {
                return i;
            }
        }
        return -1;
    }

    @Override
    public long findRun(MemorySegment text, long start, long end, ByteRun run) {
        for (long i = start; i + run.length() <= end; i++) {
            if (run.at(text, i)) {
                return i;
            }
        }
        return -1;
    }
}
