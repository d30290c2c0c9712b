package dev.oddbeacon.core.source.language;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Map;

/**
 * Finds words with a meaning by the bytes of a text: open addressing, by the hash that every name has anyway. Two words
 * of one hash are told apart by their bytes.
 */
public final class WordTable {
    private static final long FACTOR = 0x9E3779B97F4A7C15L; // 2^64 by the golden ratio
    private static final long SEED = new SecureRandom().nextLong(); // so that nobody can write names of one hash

    private final byte[][] names;
    private final Word[] words;
    private final int mask;
    private final boolean ignoresCase;
    private final int longest;

    WordTable(Map<String, Word> entries, boolean ignoresCase) {
        int size = Integer.highestOneBit(Math.max(8, entries.size() * 4));
        this.names = new byte[size][];
        this.words = new Word[size];
        this.mask = size - 1;
        this.ignoresCase = ignoresCase;
        this.longest = entries.keySet().stream().mapToInt(String::length).max().orElse(0);
        entries.forEach((name, word) -> {
            byte[] bytes = name.getBytes(StandardCharsets.UTF_8);
            int slot = slot(hash(bytes, 0, bytes.length));
            while (names[slot] != null) {
                slot = slot + 1 & mask;
            }
            names[slot] = bytes;
            words[slot] = word;
        });
    }

    /** The hash of a name; another one whenever the program starts. */
    public static long hash(byte[] text, int start, int end) {
        long hash = SEED + end - start;
        for (int i = start; i < end; i++) {
            hash = (hash ^ text[i]) * FACTOR;
        }
        return hash ^ hash >>> 32;
    }

    private int slot(long hash) {
        return (int) (hash >>> 20) & mask;
    }

    /** The word that stands in a range, {@link Word#NONE} if it has no meaning. */
    public Word find(byte[] text, int start, int end, long hash) {
        if (end - start > longest) {
            return Word.NONE;
        }
        if (ignoresCase) {
            byte[] lower = Arrays.copyOfRange(text, start, end);
            for (int i = 0; i < lower.length; i++) {
                lower[i] = lower[i] >= 'A' && lower[i] <= 'Z' ? (byte) (lower[i] | 0x20) : lower[i];
            }
            return find(lower, hash(lower, 0, lower.length));
        }
        for (int slot = slot(hash); names[slot] != null; slot = slot + 1 & mask) {
            if (Arrays.equals(names[slot], 0, names[slot].length, text, start, end)) {
                return words[slot];
            }
        }
        return Word.NONE;
    }

    private Word find(byte[] lower, long hash) {
        for (int slot = slot(hash); names[slot] != null; slot = slot + 1 & mask) {
            if (Arrays.equals(names[slot], lower)) {
                return words[slot];
            }
        }
        return Word.NONE;
    }
}
