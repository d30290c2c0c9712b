package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;

/**
 * The innermost loops over text, in two forms that give the same answers: {@link VectorByteScan}, many bytes at a
 * time with the JDK's vector module, and {@link PlainByteScan}, byte by byte, for a JVM that was started without it.
 * Which one is chosen is decided once.
 */
interface ByteScan {
    ByteScan CHOSEN = choose();

    /** The first offset in [start, end) of a byte, or -1. */
    long find(MemorySegment text, long start, long end, byte value);

    /** Counts a byte in [start, end). */
    int count(MemorySegment text, long start, long end, byte value);

    /**
     * The first offset p in [start, end) where {@code (text[p] | firstCase) == first} and
     * {@code (text[p + distance] | secondCase) == second}, or -1. The second byte may lie at or beyond end, but
     * must lie inside the segment.
     */
    long findPair(MemorySegment text, long start, long end, Anchor anchor);

    /** The first offset in [start, end) where a run stands that ends before {@code end}, or -1. */
    long findRun(MemorySegment text, long start, long end, ByteRun run);

    /** Two bytes of a literal and their distance. A case bit of 0x20 makes a letter stand for both of its cases. */
    record Anchor(byte first, byte firstCase, byte second, byte secondCase, int distance) {
        boolean at(MemorySegment text, long offset) {
            return (text.get(ValueLayout.JAVA_BYTE, offset) | firstCase) == first
                    && (text.get(ValueLayout.JAVA_BYTE, offset + distance) | secondCase) == second;
        }
    }

    private static ByteScan choose() {
        return ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent()
                ? new VectorByteScan()
                : new PlainByteScan();
    }
}
