package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Kind;
import java.io.IOException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/**
 * Collects the names in the code of a segment: which pieces hold each, how often, and what is declared there. A name is
 * known by a hash of 64 bits with a secret seed. What a piece holds is noted in a log in the order of pieces, and
 * sorted by name when all is known: so nothing is kept for each name but a few numbers.
 */
final class NamesBuilder {
    /** Longer names are left out: nobody looks for them. In bytes. */
    static final int LONGEST = 1_000;

    private static final int USES_BITS = 12; // the upper 20 hold a piece
    private static final int MOST_USES = (1 << USES_BITS) - 1;

    private byte[] arena = new byte[1 << 20];
    private int arenaSize;
    private int[] starts = new int[1 << 16]; // of name n; it ends where the next one starts
    private int count;
    private long[] hashes = new long[1 << 17]; // open addressing; 0 is an empty slot
    private int[] numbers = new int[1 << 17];
    private int[] pieceOf = new int[1 << 16]; // the last piece that held a name, plus one
    private int[] entryOf = new int[1 << 16]; // and the entry of the log for it
    private int[] entryNames = new int[1 << 16];
    private short[] entryUses = new short[1 << 16]; // up to MOST_USES
    private int entries;
    private int[] firstEntries = new int[1 << 10]; // of each piece
    private int pieces;
    private final Map<Long, Integer> moreUses = new HashMap<>(); // beyond MOST_USES, by name and piece
    private int[] byName = new int[0]; // pieces and uses of all entries, by name
    private int[] declaredNames = new int[1 << 14];
    private int[] declaredPieces = new int[1 << 14];
    private byte[] declaredKinds = new byte[1 << 14];
    private int declared;

    /** @param hash of the name, never of another one */
    void addUse(byte[] text, int start, int end, long hash, int piece) {
        if (end - start <= LONGEST) {
            int number = number(text, start, end, hash);
            int entry = entry(number, piece); // first, because it may replace the array
            if (entryUses[entry] < MOST_USES) {
                entryUses[entry]++;
            } else {
                moreUses.merge(key(number, piece), 1, Integer::sum);
            }
        }
    }

    /** Adds a declaration; if its kind is that of a use, it has to be added as a use too. */
    void addDeclaration(byte[] text, int start, int end, long hash, int piece, Kind kind) {
        if (end - start > LONGEST) {
            return;
        }
        int number = number(text, start, end, hash);
        entry(number, piece);
        if (declared == declaredNames.length) {
            declaredNames = Arrays.copyOf(declaredNames, declared * 2);
            declaredPieces = Arrays.copyOf(declaredPieces, declared * 2);
            declaredKinds = Arrays.copyOf(declaredKinds, declared * 2);
        }
        declaredNames[declared] = number;
        declaredPieces[declared] = piece;
        declaredKinds[declared++] = (byte) kind.code();
    }

    private int entry(int number, int piece) {
        if (pieceOf[number] == piece + 1) {
            return entryOf[number];
        }
        if (entries == entryNames.length) {
            entryNames = Arrays.copyOf(entryNames, entries * 2);
            entryUses = Arrays.copyOf(entryUses, entries * 2);
        }
        while (pieces <= piece) {
            firstEntries = pieces == firstEntries.length ? Arrays.copyOf(firstEntries, pieces * 2) : firstEntries;
            firstEntries[pieces++] = entries;
        }
        pieceOf[number] = piece + 1;
        entryOf[number] = entries;
        entryNames[entries] = number;
        entryUses[entries] = 0;
        return entries++;
    }

    private int number(byte[] text, int start, int end, long ofName) {
        long hash = ofName == 0 ? 1 : ofName;
        int mask = hashes.length - 1;
        int slot = (int) (hash >>> 20) & mask;
        while (hashes[slot] != 0) {
            if (hashes[slot] == hash) {
                return numbers[slot];
            }
            slot = slot + 1 & mask;
        }
        int number = count++;
        hashes[slot] = hash;
        numbers[slot] = number;
        if (count == starts.length) {
            starts = Arrays.copyOf(starts, count * 2);
            pieceOf = Arrays.copyOf(pieceOf, count * 2);
            entryOf = Arrays.copyOf(entryOf, count * 2);
        }
        int length = end - start;
        while (arenaSize + length > arena.length) {
            arena = Arrays.copyOf(arena, arena.length * 2);
        }
        System.arraycopy(text, start, arena, arenaSize, length);
        starts[number] = arenaSize;
        arenaSize += length;
        starts[count] = arenaSize;
        if (count * 2 > hashes.length) {
            grow();
        }
        return number;
    }

    private void grow() {
        long[] oldHashes = hashes;
        int[] oldNumbers = numbers;
        hashes = new long[oldHashes.length * 2];
        numbers = new int[oldHashes.length * 2];
        int mask = hashes.length - 1;
        for (int i = 0; i < oldHashes.length; i++) {
            if (oldHashes[i] != 0) {
                int slot = (int) (oldHashes[i] >>> 20) & mask;
                while (hashes[slot] != 0) {
                    slot = slot + 1 & mask;
                }
                hashes[slot] = oldHashes[i];
                numbers[slot] = oldNumbers[i];
            }
        }
    }

    /** Bytes of the names so far. */
    int bytes() {
        return arenaSize;
    }

    /** Receives each name. */
    interface Sink {
        /** @param list see {@link SegmentWriter}: the postings of the name */
        void name(byte[] bytes, int start, int end, byte[] list, int length) throws IOException;
    }

    /** Tells all names, by their bytes with capitals as small letters, then by their bytes. */
    void forEachSorted(Sink sink) throws IOException {
        int[] order = new ByteStrings(arena, starts, true).order(count);
        int[] entryStarts = starts(entryNames, entries);
        sortByName(entryStarts);
        int[] declaredStarts = starts(declaredNames, declared);
        int[] declaredByName = byName(declaredNames, declared, declaredStarts);
        byte[] list = new byte[1 << 12];
        for (int number : order) {
            int size = 0;
            int piece = 0;
            int declaration = declaredStarts[number];
            for (int i = entryStarts[number]; i < entryStarts[number + 1]; i++) {
                int at = byName[i] >>> USES_BITS;
                int uses = byName[i] & MOST_USES;
                int first = declaration;
                while (declaration < declaredStarts[number + 1] && declaredPieces[declaredByName[declaration]] == at) {
                    declaration++;
                }
                int here = declaration - first;
                if (size + here + 20 > list.length) {
                    list = Arrays.copyOf(list, Math.max(list.length * 2, size + here + 20));
                }
                size = put(list, size, at - piece);
                piece = at;
                uses += uses < MOST_USES ? 0 : moreUses.getOrDefault(key(number, piece), 0);
                size = put(list, size, uses << 1 | (here > 0 ? 1 : 0));
                if (here > 0) {
                    size = put(list, size, here);
                    for (int k = first; k < declaration; k++) {
                        list[size++] = declaredKinds[declaredByName[k]];
                    }
                }
            }
            sink.name(arena, starts[number], starts[number + 1], list, size);
        }
    }

    /** Start of each name's entries once they are sorted by name. */
    private int[] starts(int[] names, int size) {
        int[] result = new int[count + 1];
        for (int i = 0; i < size; i++) {
            result[names[i] + 1]++;
        }
        for (int i = 0; i < count; i++) {
            result[i + 1] += result[i];
        }
        return result;
    }

    /** So that the list of a name is made from what lies together. */
    private void sortByName(int[] ofName) {
        int[] next = Arrays.copyOf(ofName, count);
        byName = byName.length < entries ? new int[entryNames.length] : byName;
        for (int piece = 0; piece < pieces; piece++) {
            int end = piece + 1 < pieces ? firstEntries[piece + 1] : entries;
            for (int i = firstEntries[piece]; i < end; i++) {
                byName[next[entryNames[i]]++] = piece << USES_BITS | entryUses[i];
            }
        }
    }

    private static long key(int number, int piece) {
        return (long) number << Integer.SIZE | piece;
    }

    private int[] byName(int[] names, int size, int[] ofName) {
        int[] next = Arrays.copyOf(ofName, count);
        int[] result = new int[size];
        for (int i = 0; i < size; i++) {
            result[next[names[i]]++] = i;
        }
        return result;
    }

    /** Seven bits a byte, lowest first. */
    static int put(byte[] into, int at, int value) {
        int i = at;
        int rest = value;
        while (rest > 0x7F) {
            into[i++] = (byte) (rest | 0x80);
            rest >>>= 7;
        }
        into[i++] = (byte) rest;
        return i;
    }

    void clear() {
        arenaSize = 0;
        count = 0;
        entries = 0;
        pieces = 0;
        moreUses.clear();
        declared = 0;
        Arrays.fill(hashes, 0);
        Arrays.fill(pieceOf, 0);
    }
}
