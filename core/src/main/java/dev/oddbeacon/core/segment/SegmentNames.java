package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.segment.SegmentWriter.NameBlockRow;
import dev.oddbeacon.core.source.Kind;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Arrays;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * The names in the code of a segment, in blocks of about a kilobyte, one a line, in the order of their bytes with
 * capitals as small letters; and where each stands. As {@link SegmentWriter} wrote them.
 */
public final class SegmentNames {
    private final MemorySegment text;
    private final MemorySegment blocks;
    private final MemorySegment postings;
    private final GramLists grams;

    SegmentNames(MemorySegment text, MemorySegment blocks, MemorySegment postings, GramLists grams) {
        this.text = text;
        this.blocks = blocks;
        this.postings = postings;
        this.grams = grams;
    }

    /** The names of a block, each followed by a line feed. */
    public byte[] unpacked(int block) {
        byte[] packed = text.asSlice(blockStart(block), blockStart(block + 1) - blockStart(block))
                .toArray(ValueLayout.JAVA_BYTE);
        byte[] names = new byte[packed.length * 2 + NamesBuilder.LONGEST];
        int size = 0;
        int before = 0; // where the name before starts
        for (int at = 0; at < packed.length; ) {
            int shared = packed[at++] & 0xFF;
            int part = packed[at++];
            int rest = part & 0x7F;
            for (int shift = 7; part < 0; shift += 7) {
                part = packed[at++];
                rest |= (part & 0x7F) << shift;
            }
            if (size + shared + rest + 1 > names.length) {
                names = Arrays.copyOf(names, names.length * 2);
            }
            System.arraycopy(names, before, names, size, shared);
            System.arraycopy(packed, at, names, size + shared, rest);
            before = size;
            at += rest;
            size += shared + rest;
            names[size++] = '\n';
        }
        return Arrays.copyOf(names, size);
    }

    /** The blocks in which each gram stands. */
    public GramLists grams() {
        return grams;
    }

    public int blockCount() {
        return (int) (blocks.byteSize() / NameBlockRow.BYTES) - 1;
    }

    /** Start offset of a packed block; the block count is allowed. */
    private long blockStart(int block) {
        return blocks.get(SectionFile.INT, (long) block * NameBlockRow.BYTES) & 0xFFFFFFFFL;
    }

    private long postingsStart(int block) {
        return blocks.get(SectionFile.INT, (long) block * NameBlockRow.BYTES + NameBlockRow.LISTS) & 0xFFFFFFFFL;
    }

    /**
     * The blocks, ascending, that may hold names which begin with a text in small letters; all of them if it is empty.
     */
    public int[] blocksBeginningWith(byte[] folded) {
        int first = Math.max(0, firstAfter(folded, false) - 1);
        int last = firstAfter(folded, true);
        return IntStream.range(Math.min(first, blockCount()), last).toArray();
    }

    /** Tells where one name stands, in exactly this spelling. */
    public void occurrences(byte[] name, Occurrences sink) {
        spelled(
                folded(name),
                false,
                (all, start, end) ->
                        Arrays.equals(all, start, end, name, 0, name.length) ? Optional.of(sink) : Optional.empty());
    }

    private static byte[] folded(byte[] name) {
        byte[] folded = name.clone();
        for (int i = 0; i < folded.length; i++) {
            folded[i] |= folded[i] >= 'A' && folded[i] <= 'Z' ? (byte) 0x20 : 0;
        }
        return folded;
    }

    /**
     * Tells where some names stand: those that are a text in small letters, whatever letters are capitals in them.
     *
     * @param longer whether names that only begin so are meant as well
     * @param choice which of these are wanted
     */
    public void spelled(byte[] folded, boolean longer, Choice choice) {
        for (int block : blockCount() > 0 ? blocksBeginningWith(folded) : new int[0]) {
            byte[] all = unpacked(block);
            BlockLists lists = null;
            int number = 0;
            for (int start = 0; start < all.length; number++) {
                int end = start;
                while (all[end] != '\n') {
                    end++;
                }
                if (beginsWith(all, start, end, folded)) {
                    if (!longer && end - start > folded.length) {
                        return; // shorter names come before longer ones that begin so
                    }
                    Optional<Occurrences> sink = choice.of(all, start, end);
                    if (sink.isPresent()) {
                        lists = lists == null ? lists(block) : lists;
                        lists.of(number, sink.get());
                    }
                }
                start = end + 1;
            }
        }
    }

    private static boolean beginsWith(byte[] all, int start, int end, byte[] folded) {
        if (end - start < folded.length) {
            return false;
        }
        for (int i = 0; i < folded.length; i++) {
            byte value = all[start + i];
            if ((value >= 'A' && value <= 'Z' ? value | 0x20 : value) != folded[i]) {
                return false;
            }
        }
        return true;
    }

    /** The first block whose first name comes after a text, or after all that begin with it. */
    private int firstAfter(byte[] folded, boolean afterAll) {
        int low = 0;
        int high = blockCount();
        while (low < high) {
            int middle = (low + high) >>> 1;
            int order = compareFirst(middle, folded);
            if (order < 0 || order == 0 && afterAll) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** Compares the beginning of a block's first name; 0 if it begins so. */
    private int compareFirst(int block, byte[] folded) {
        long at = blockStart(block) + 1; // the first name shares nothing
        int part = text.get(ValueLayout.JAVA_BYTE, at++);
        int length = part & 0x7F;
        if (part < 0) {
            length |= text.get(ValueLayout.JAVA_BYTE, at++) << 7;
        }
        for (int i = 0; i < folded.length; i++) {
            byte wanted = folded[i];
            int value = i < length ? text.get(ValueLayout.JAVA_BYTE, at + i) & 0xFF : -1;
            value = value >= 'A' && value <= 'Z' ? value | 0x20 : value;
            if (value != (wanted & 0xFF)) {
                return value - (wanted & 0xFF);
            }
        }
        return 0;
    }

    /** Says whether somebody wants to be told where a name stands, and who. */
    @FunctionalInterface
    public interface Choice {
        /** @param names from start to end, in UTF-8 */
        Optional<Occurrences> of(byte[] names, int start, int end);
    }

    /** Is told where a name stands. */
    @FunctionalInterface
    public interface Occurrences {
        /**
         * @param uses in the piece, those of a special position included
         * @param kinds from one index to another the numbers of the {@link Kind} of each declaration there, and of each
         * use of a special position
         */
        void in(int piece, int uses, byte[] kinds, int from, int to);
    }

    /** The lists of a block, gone through from its first name. For one thread. */
    public final class BlockLists {
        private final byte[] bytes;
        private int at;
        private int number;

        private BlockLists(int block) {
            bytes = postings.asSlice(postingsStart(block), postingsStart(block + 1) - postingsStart(block))
                    .toArray(ValueLayout.JAVA_BYTE);
        }

        private int next() {
            int part = bytes[at++];
            int value = part & 0x7F;
            for (int shift = 7; part < 0; shift += 7) {
                part = bytes[at++];
                value |= (part & 0x7F) << shift;
            }
            return value;
        }

        /**
         * Tells where a name stands, by its number in the block, which must not be less than that of the one before.
         */
        public void of(int name, Occurrences sink) {
            while (number < name) {
                int length = next();
                at += length;
                number++;
            }
            int length = next();
            int end = at + length;
            int piece = 0;
            while (at < end) {
                piece += next();
                int head = next();
                int here = (head & 1) == 1 ? next() : 0;
                at += here;
                sink.in(piece, head >>> 1, bytes, at - here, at);
            }
            number++;
        }
    }

    public BlockLists lists(int block) {
        return new BlockLists(block);
    }
}
