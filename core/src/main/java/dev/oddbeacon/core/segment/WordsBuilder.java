package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.io.IOException;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.security.SecureRandom;
import java.util.Arrays;

/**
 * Collects the distinct words of a segment, case-folded. A word is known by a hash of 64 bits, with a seed that nobody
 * outside knows: two of a million words have the same with a chance of one in ten million. Most words of a text are
 * among the last few thousand, and are recognised without a look into the large table.
 */
final class WordsBuilder {
    /** Longer words are left out: they are data, and nobody misspells them. In code points. */
    static final int LONGEST = 64;

    static final int LONGEST_BYTES = 255;
    private static final byte[] FOLDED_ASCII = foldedAscii();
    private static final VarHandle LONG = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long SEED = new SecureRandom().nextLong();
    private static final long FACTOR = 0x9E3779B97F4A7C15L; // 2^64 by the golden ratio
    private static final int RECENT = 1 << 13;
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGH = ONES << 7;
    private static final long SPACES = 0x20 * ONES;

    private byte[] arena = new byte[1 << 20];
    private int arenaSize;
    private int[] starts = new int[1 << 16]; // of word n; it ends where the next one starts
    private int count;
    private long[] hashes = new long[1 << 17]; // open addressing; 0 is an empty slot
    private final long[] recent = new long[RECENT];
    private final byte[] word =
            new byte[4 * LONGEST + Long.BYTES]; // zeros behind the word up to the next multiple of 8

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
        if (isAscii(text, start, end)) {
            addAscii(text, start, end);
        } else {
            addAny(text, start, end);
        }
    }

    private static boolean isAscii(byte[] text, int start, int end) {
        int i = start;
        long any = 0;
        for (; i + Long.BYTES <= end; i += Long.BYTES) {
            any |= (long) LONG.get(text, i);
        }
        for (; i < end; i++) {
            any |= text[i];
        }
        return (any & HIGH) == 0;
    }

    /**
     * Eight bytes at a time: which of them are parts of words, then word after word, without looking at its bytes
     * singly.
     */
    private void addAscii(byte[] text, int start, int end) {
        int from = -1; // where the current word starts
        int i = start;
        for (; i + Long.BYTES <= end; i += Long.BYTES) {
            int parts = wordParts((long) LONG.get(text, i));
            if (parts == 0xFF && from >= 0) {
                continue;
            }
            int at = 0;
            while (true) {
                if (from < 0) {
                    at = Integer.numberOfTrailingZeros(parts >>> at | 1 << Byte.SIZE) + at;
                    if (at >= Long.BYTES) {
                        break;
                    }
                    from = i + at;
                }
                at = Integer.numberOfTrailingZeros(~(parts >>> at)) + at;
                if (at >= Long.BYTES) {
                    break;
                }
                addAsciiWord(text, from, i + at);
                from = -1;
            }
        }
        for (; i < end; i++) {
            boolean isPart = FOLDED_ASCII[text[i]] != 0;
            if (isPart && from < 0) {
                from = i;
            } else if (!isPart && from >= 0) {
                addAsciiWord(text, from, i);
                from = -1;
            }
        }
        if (from >= 0) {
            addAsciiWord(text, from, end);
        }
    }

    /** For eight bytes below 80, a bit for each that is a letter, a digit or _; the first one is the lowest. */
    private static int wordParts(long bytes) {
        long lower = bytes | SPACES; // capitals become small; digits stay
        long letters = (lower + (0x80 - 'a') * ONES) & ~(lower + (0x80 - 'z' - 1) * ONES);
        long digits = (bytes + (0x80 - '0') * ONES) & ~(bytes + (0x80 - '9' - 1) * ONES);
        long underscores = ~((bytes ^ '_' * ONES) + 0x7F * ONES);
        return (int) ((((letters | digits | underscores) & HIGH) >>> 7) * 0x0102040810204080L >>> 56);
    }

    private void addAsciiWord(byte[] text, int from, int to) {
        int length = to - from;
        if (length > LONGEST) {
            return;
        }
        long hash = SEED ^ length;
        for (int i = 0; i < length; i += Long.BYTES) {
            long bytes = from + i + Long.BYTES <= text.length ? (long) LONG.get(text, from + i) : last(text, from + i);
            int over = i + Long.BYTES - length;
            if (over > 0) {
                bytes &= -1L >>> over * Byte.SIZE;
            }
            long underscores = ~((bytes ^ '_' * ONES) + 0x7F * ONES) & HIGH;
            bytes |= (bytes & 0x40 * ONES) >>> 1 & ~(underscores >>> 2);
            LONG.set(word, i, bytes);
            hash = (hash ^ bytes) * FACTOR;
            hash ^= hash >>> 29;
        }
        remember(length, hash);
    }

    /** The last bytes of a text, padded with zeros. */
    private static long last(byte[] text, int from) {
        long bytes = 0;
        for (int i = text.length - 1; i >= from; i--) {
            bytes = bytes << Byte.SIZE | text[i] & 0xFF;
        }
        return bytes;
    }

    private void addAny(byte[] text, int start, int end) {
        int length = 0;
        int letters = 0;
        int i = start;
        while (i < end) {
            int lead = text[i];
            if (lead >= 0) {
                byte folded = FOLDED_ASCII[lead];
                i++;
                if (folded != 0) {
                    if (letters++ < LONGEST) {
                        word[length++] = folded;
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
                        length += Utf8.put(CaseFolding.fold(codePoint), word, length);
                    }
                    continue;
                }
            }
            if (letters > 0) {
                addIfShort(letters, length);
                length = 0;
                letters = 0;
            }
        }
        if (letters > 0) {
            addIfShort(letters, length);
        }
    }

    private void addIfShort(int letters, int length) {
        if (letters > LONGEST || length > LONGEST_BYTES) {
            return;
        }
        LONG.set(word, length, 0L);
        long hash = SEED ^ length;
        for (int i = 0; i < length; i += Long.BYTES) {
            hash = (hash ^ (long) LONG.get(word, i)) * FACTOR;
            hash ^= hash >>> 29;
        }
        remember(length, hash);
    }

    /** Adds what stands in {@code word}, unless it is there already. */
    private void remember(int length, long ofWord) {
        long hash = ofWord == 0 ? 1 : ofWord;
        int place = (int) hash & RECENT - 1;
        if (recent[place] != hash) {
            recent[place] = hash;
            add(length, hash);
        }
    }

    private void add(int length, long hash) {
        int mask = hashes.length - 1;
        int slot = (int) (hash >>> 20) & mask;
        while (hashes[slot] != 0) {
            if (hashes[slot] == hash) {
                return;
            }
            slot = slot + 1 & mask;
        }
        hashes[slot] = hash;
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
        if (count * 2 > hashes.length) {
            grow();
        }
    }

    private void grow() {
        long[] old = hashes;
        hashes = new long[old.length * 2];
        int mask = hashes.length - 1;
        for (long hash : old) {
            if (hash != 0) {
                int slot = (int) (hash >>> 20) & mask;
                while (hashes[slot] != 0) {
                    slot = slot + 1 & mask;
                }
                hashes[slot] = hash;
            }
        }
    }

    /** Bytes of the words so far. */
    int bytes() {
        return arenaSize;
    }

    /** Receives each word. */
    interface Sink {
        void word(byte[] bytes, int start, int end) throws IOException;
    }

    /** Tells all words in the order of their bytes. */
    void forEachSorted(Sink sink) throws IOException {
        int[] order = new ByteStrings(arena, starts, false).order(count);
        for (int number : order) {
            sink.word(arena, starts[number], starts[number + 1]);
        }
    }

    void clear() {
        arenaSize = 0;
        count = 0;
        Arrays.fill(hashes, 0);
        Arrays.fill(recent, 0);
    }
}
