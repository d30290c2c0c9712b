package dev.oddbeacon.core.segment;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Arrays;

/**
 * Which grams stand in which pieces of a text, as {@link PostingsBuilder} collected them. Any number of threads may
 * read.
 */
public final class GramLists {
    private final MemorySegment grams;
    private final MemorySegment ends;
    private final MemorySegment postings;
    private final int pieceCount;

    GramLists(MemorySegment grams, MemorySegment ends, MemorySegment postings, int pieceCount) {
        this.grams = grams;
        this.ends = ends;
        this.postings = postings;
        this.pieceCount = pieceCount;
    }

    /** Reads what {@link PostingsBuilder#write} wrote. */
    public static GramLists read(SectionReader file, int gramsKind, int endsKind, int postingsKind, int pieceCount)
            throws DamagedFileException {
        return new GramLists(file.section(gramsKind), file.section(endsKind), file.section(postingsKind), pieceCount);
    }

    /** Pieces of the text. */
    public int pieceCount() {
        return pieceCount;
    }

    /** The list of a gram, or -1 if no piece holds it. */
    public int list(int gram) {
        int low = 0;
        int high = (int) (grams.byteSize() / 4) - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            int found = grams.get(SectionFile.INT, middle * 4L);
            if (found == gram) {
                return middle;
            } else if (found < gram) {
                low = middle + 1;
            } else {
                high = middle - 1;
            }
        }
        return -1;
    }

    /** Bytes of a list: between one and three times its pieces, as a rule. */
    public int listBytes(int list) {
        return ends.get(SectionFile.INT, list * 4L) - start(list);
    }

    /** The pieces of a list, ascending. */
    public int[] pieces(int list) {
        Gaps gaps = new Gaps(list);
        int[] result = new int[gaps.bytes.length];
        int count = 0;
        while (gaps.advance()) {
            result[count++] = gaps.piece;
        }
        return count == result.length ? result : Arrays.copyOf(result, count);
    }

    /** The pieces, among some, that are also in a list; given and returned ascending. */
    public int[] intersection(int list, int[] some) {
        Gaps gaps = new Gaps(list);
        int[] result = new int[some.length];
        int count = 0;
        int next = 0;
        while (next < some.length && gaps.advance()) {
            while (next < some.length && some[next] < gaps.piece) {
                next++;
            }
            if (next < some.length && some[next] == gaps.piece) {
                result[count++] = gaps.piece;
            }
        }
        return Arrays.copyOf(result, count);
    }

    /**
     * Goes through a list, which is copied first: reading an array is much faster than reading mapped memory byte by
     * byte.
     */
    private final class Gaps {
        private final byte[] bytes;
        private int at;
        private int piece;

        Gaps(int list) {
            bytes = new byte[listBytes(list)];
            MemorySegment.copy(postings, ValueLayout.JAVA_BYTE, start(list), bytes, 0, bytes.length);
        }

        /** Goes to the next piece. @return false if there is none */
        boolean advance() {
            if (at == bytes.length) {
                return false;
            }
            int part = bytes[at++];
            int gap = part & 0x7F;
            for (int shift = 7; part < 0; shift += 7) {
                part = bytes[at++];
                gap |= (part & 0x7F) << shift;
            }
            piece += gap;
            return true;
        }
    }

    private int start(int list) {
        return list == 0 ? 0 : ends.get(SectionFile.INT, (list - 1) * 4L);
    }
}
