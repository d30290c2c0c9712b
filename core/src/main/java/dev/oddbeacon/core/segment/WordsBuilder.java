package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.util.Arrays;

/**
 * Collects the distinct words of a segment, case-folded: a hash table with open addressing over an arena of bytes.
 * Costs about a byte operation for each byte of text, and for each word one look into the table.
 */
final class WordsBuilder {
    /** Longer words are left out: they are data, and nobody misspells them. In code points. */
    static final int LONGEST = 64;
    static final int LONGEST_BYTES = 255;
    private static final byte[] FOLDED_ASCII = foldedAscii();
    private static final int NUMBER_BITS = 31;
    private static final long NUMBER_MASK = (1L << NUMBER_BITS) - 1;
    private static final long HASH_START = 0xcbf29ce484222325L; // FNV-1a
    private static final long HASH_FACTOR = 0x100000001b3L;

    private byte[] arena = new byte[1 << 20];
    private int arenaSize;
    private int[] starts = new int[1 << 16]; // of word n; it ends where the next one starts
    private int count;
    private int[] slots = new int[1 << 17]; // word number + 1
    private long[] hashes = new long[1 << 17]; // of the word in the slot
    private final byte[] word = new byte[4 * LONGEST];

    /** Lower case letters, digits and _ for themselves and their capitals, 0 for what is no part of a word. */
    private static byte[] foldedAscii() {
        byte[] folded = new byte[128];
        for (int c = 0; c < folded.length; c++) {
            folded[c] = (byte) (Words.isWordPart(c) ? CaseFolding.fold(c) : 0);
        }
        return folded;
    }

    /** Adds the words of a UTF-8 text. */
    void add(byte[] text, int start, int end) {
        int length = 0;
        int letters = 0;
        long hash = HASH_START;
        int i = start;
        while (i < end) {
            int lead = text[i];
            if (lead >= 0) {
                byte folded = FOLDED_ASCII[lead];
                i++;
                if (folded != 0) {
                    if (letters++ < LONGEST) {
                        word[length++] = folded;
                        hash = (hash ^ folded) * HASH_FACTOR;
                    }
                    continue;
                }
            } else {
                int bytes = Utf8.lengthOf(lead);
                int codePoint = bytes == 2 ? lead & 0x1F : bytes == 3 ? lead & 0x0F : lead & 0x07;
                for (int k = 1; k < bytes; k++) {
                    codePoint = codePoint << 6 | text[i + k] & 0x3F;
                }
                i += bytes;
                if (Words.isWordPart(codePoint)) {
                    if (letters++ < LONGEST) {
                        int from = length;
                        length += Utf8.put(CaseFolding.fold(codePoint), word, length);
                        for (int k = from; k < length; k++) {
                            hash = (hash ^ word[k]) * HASH_FACTOR;
                        }
                    }
                    continue;
                }
            }
            if (letters > 0) {
                addIfShort(letters, length, hash);
                length = 0;
                letters = 0;
                hash = HASH_START;
            }
        }
        addIfShort(letters, length, hash);
    }

    private void addIfShort(int letters, int length, long hash) {
        if (letters > 0 && letters <= LONGEST && length <= LONGEST_BYTES) {
            add(length, hash);
        }
    }

    private void add(int length, long hash) {
        int mask = slots.length - 1;
        int slot = (int) (hash ^ hash >>> 32) & mask;
        while (slots[slot] != 0) {
            if (hashes[slot] == hash && isWord(slots[slot] - 1, length)) {
                return;
            }
            slot = slot + 1 & mask;
        }
        if (count + 1 == starts.length) {
            starts = Arrays.copyOf(starts, starts.length * 2);
        }
        if (arenaSize + length > arena.length) {
            arena = Arrays.copyOf(arena, arena.length * 2);
        }
        System.arraycopy(word, 0, arena, arenaSize, length);
        starts[count] = arenaSize;
        arenaSize += length;
        starts[++count] = arenaSize;
        slots[slot] = count;
        hashes[slot] = hash;
        if (count * 2 > slots.length) {
            grow();
        }
    }

    private boolean isWord(int number, int length) {
        return starts[number + 1] - starts[number] == length && Arrays.equals(arena, starts[number], starts[number + 1], word, 0, length);
    }

    private void grow() {
        int[] oldSlots = slots;
        long[] oldHashes = hashes;
        slots = new int[oldSlots.length * 2];
        hashes = new long[slots.length];
        int mask = slots.length - 1;
        for (int i = 0; i < oldSlots.length; i++) {
            if (oldSlots[i] != 0) {
                int slot = (int) (oldHashes[i] ^ oldHashes[i] >>> 32) & mask;
                while (slots[slot] != 0) {
                    slot = slot + 1 & mask;
                }
                slots[slot] = oldSlots[i];
                hashes[slot] = oldHashes[i];
            }
        }
    }

    /** What is told each word. */
    interface Sink {
        void word(byte[] bytes, int start, int end) throws java.io.IOException;
    }

    /** Tells all words in the order of their bytes. */
    void forEachSorted(Sink sink) throws java.io.IOException {
        long[] order = new long[count]; // four bytes of the word, then its number: mostly sorted by that alone
        for (int number = 0; number < count; number++) {
            long key = 0;
            for (int k = 0; k < 4; k++) {
                int at = starts[number] + k;
                key = key << 8 | (at < starts[number + 1] ? arena[at] & 0xFF : 0);
            }
            order[number] = key << NUMBER_BITS | number;
        }
        Arrays.sort(order);
        for (int from = 0; from < count; ) {
            int until = from + 1;
            while (until < count && order[until] >>> NUMBER_BITS == order[from] >>> NUMBER_BITS) {
                until++;
            }
            if (until - from > 1) {
                sortByBytes(order, from, until);
            }
            for (int i = from; i < until; i++) {
                int number = (int) (order[i] & NUMBER_MASK);
                sink.word(arena, starts[number], starts[number + 1]);
            }
            from = until;
        }
    }

    private void sortByBytes(long[] order, int from, int until) {
        Long[] same = new Long[until - from];
        Arrays.setAll(same, i -> order[from + i]);
        Arrays.sort(same, (a, b) -> {
            int first = (int) (a & NUMBER_MASK);
            int second = (int) (b & NUMBER_MASK);
            return Arrays.compareUnsigned(arena, starts[first], starts[first + 1], arena, starts[second], starts[second + 1]);
        });
        for (int i = 0; i < same.length; i++) {
            order[from + i] = same[i];
        }
    }

    void clear() {
        arenaSize = 0;
        count = 0;
        Arrays.fill(slots, 0);
    }
}
