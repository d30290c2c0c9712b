package dev.oddbeacon.core.segment;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;

/**
 * What all index files have in common: sections behind a table, each with a checksum. Little-endian.
 *
 * <pre>
 *   offset        bytes  what
 *   0             8      magic, ASCII, with the version of the format
 *   8             4      number of sections n
 *   12            4      zero
 *   16            24 n   the table: kind (4), CRC-32C of the section (4), offset (8), length (8)
 *   16 + 24 n     4      CRC-32C of all before
 *   ...                  the sections, each at a multiple of 8
 * </pre>
 */
public final class SectionFile {
    public static final ValueLayout.OfInt INT = ValueLayout.JAVA_INT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
    public static final ValueLayout.OfLong LONG = ValueLayout.JAVA_LONG_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
    private static final ValueLayout.OfInt INT_BIG = ValueLayout.JAVA_INT_UNALIGNED.withOrder(ByteOrder.BIG_ENDIAN);
    private static final ValueLayout.OfLong LONG_BIG = ValueLayout.JAVA_LONG_UNALIGNED.withOrder(ByteOrder.BIG_ENDIAN);
    static final int TABLE = 16;
    static final int ROW = 24;

    private SectionFile() {}

    /** An object id, the first byte first. */
    public static ObjectId id(MemorySegment rows, long offset) {
        return new ObjectId(
                rows.get(LONG_BIG, offset),
                rows.get(LONG_BIG, offset + Long.BYTES),
                rows.get(INT_BIG, offset + 2 * Long.BYTES));
    }

    static int headerBytes(int sections) {
        return TABLE + ROW * sections + 4;
    }

    static long aligned(long offset) {
        return (offset + 7) & ~7L;
    }
}
