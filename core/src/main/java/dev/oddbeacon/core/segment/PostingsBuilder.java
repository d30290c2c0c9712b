package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.text.CaseFolding;
import java.io.IOException;
import java.util.Arrays;

/**
 * Collects, for each gram, the pieces that hold it, as gaps between ascending piece numbers, each a variable-length
 * number (seven bits a byte, lowest first, the high bit meaning "more").
 *
 * <p>Most grams of a piece occur in it many times; sets of bits, small enough for the processor's cache, say whether
 * a gram was seen in the piece at hand. To append to the list of each gram at once would miss the cache several times
 * for each gram of a piece. So they are sorted instead: first, as pieces end, by the upper half of the gram into 4096
 * chains, and when all are known each chain by the lower half. Both steps write to few places at a time. An entry of a
 * chain is the lower half and the gap between its piece and the one before: 16 bits, as most gaps are short.
 */
public final class PostingsBuilder implements Grams.Sink {
    /** Where the numbers of pieces end; a gap between two of them takes three bytes at most. */
    static final int MOST_PIECES = 1 << 20;

    private static final int HALF_BITS = 12;
    private static final int HALF = 1 << HALF_BITS;
    private static final int GAP_BITS = 4;
    private static final int FAR = (1 << GAP_BITS) - 1; // no gap: the number of the piece follows, in two entries
    private static final int CHUNK = 1 << 8; // entries; the last two lead to the next chunk of the chain
    private static final int IN_CHUNK = CHUNK - 2;
    private static final int BLOCK = 1 << 19; // entries that are allocated at once

    private static final byte FEED = 0;
    private static final byte BEYOND_ASCII = -1;
    private static final byte[] FOLDED = folded();
    private static final int TEXT_AT_ONCE = 1 << 14;

    /** State of the current piece: the grams of ASCII, seven bits for a character, and all others. */
    private final long[] seenAscii = new long[Grams.SPACE / 8 / Long.SIZE];

    private final long[] seen = new long[Grams.SPACE / Long.SIZE];
    private int[] asciiInPiece = new int[TEXT_AT_ONCE * 2];
    private int asciiCount;
    private int[] inPiece = new int[1 << 12];
    private int inPieceCount;
    private short[][] blocks = new short[16][];
    private int chunks = 1; // in use; 0 is none
    private final int[] first = new int[HALF]; // chunk of each chain
    private final int[] next = new int[HALF]; // where each chain goes on, 0 before its first chunk
    private final int[] lengths = new int[HALF]; // entries of each chain
    private final int[] last = new int[HALF]; // the piece of its last entry
    private short[] entries = new short[1 << 16]; // of the chain that is sorted
    private int[] chain = new int[1 << 16]; // its pieces, sorted by gram
    private byte[] list = new byte[1 << 12];
    private int[] grams = new int[1 << 16];
    private int[] ends = new int[1 << 16];

    /** Receives the list of each gram. */
    interface Sink {
        /** @param list gaps of pieces, as above; overwritten by the next one */
        void list(int gram, byte[] list, int length) throws IOException;
    }

    private static byte[] folded() {
        byte[] folded = new byte[256];
        for (int value = 1; value < 256; value++) {
            folded[value] = value >= 0x80 ? BEYOND_ASCII : value == '\n' ? FEED : (byte) CaseFolding.fold(value);
        }
        return folded;
    }

    /**
     * Adds the grams of a piece.
     *
     * @param text UTF-8, whole lines from start to end
     * @param piece ascends from 0 to {@link #MOST_PIECES}
     */
    public void add(byte[] text, int start, int end, int piece) {
        if (piece >= MOST_PIECES) {
            throw new IllegalArgumentException("a segment has room for " + MOST_PIECES + " pieces");
        }
        int at = start;
        while (at < end) {
            int until = Math.min(end, at + TEXT_AT_ONCE);
            if (asciiCount + TEXT_AT_ONCE > asciiInPiece.length) {
                asciiInPiece = Arrays.copyOf(asciiInPiece, asciiInPiece.length * 2);
            }
            int stopped = addAscii(text, at, until);
            if (stopped == end) {
                break;
            }
            if (stopped < until) {
                int line = lineStart(text, stopped, start);
                at = lineEnd(text, stopped, end);
                Grams.cut(text, line, at, this);
            } else {
                at = Math.max(at + 1, stopped - Grams.LENGTH + 1); // the grams across the border are still to come
            }
        }
        endPiece(piece);
    }

    /**
     * Adds the grams that lie wholly in a range, up to the first character beyond ASCII or NUL, whose place is
     * returned.
     */
    private int addAscii(byte[] text, int start, int end) {
        long[] bits = seenAscii;
        int[] added = asciiInPiece;
        int count = asciiCount;
        int i = start;
        while (i < end) {
            int first = FOLDED[text[i] & 0xFF];
            if (first <= 0) {
                if (text[i] != '\n') {
                    break;
                }
                i++;
                continue;
            }
            if (i + 1 >= end) {
                i++;
                break;
            }
            int second = FOLDED[text[i + 1] & 0xFF];
            if (second <= 0) {
                i++;
                continue;
            }
            int gram = first << 7 | second;
            i += 2;
            while (i < end) {
                int folded = FOLDED[text[i] & 0xFF];
                if (folded <= 0) {
                    break;
                }
                gram = (gram << 7 | folded) & 0x1FFFFF;
                long word = bits[gram >>> 6];
                long bit = 1L << gram;
                bits[gram >>> 6] = word | bit;
                added[count] = gram;
                count += (word & bit) == 0 ? 1 : 0;
                i++;
            }
        }
        asciiCount = count;
        return i;
    }

    private static int lineStart(byte[] text, int offset, int low) {
        int at = offset;
        while (at > low && text[at - 1] != '\n') {
            at--;
        }
        return at;
    }

    private static int lineEnd(byte[] text, int offset, int high) {
        int at = offset;
        while (at < high && text[at] != '\n') {
            at++;
        }
        return at;
    }

    @Override
    public void gram(int gram) {
        long[] bits = seen;
        int place = gram;
        boolean isAscii = (gram & 0x808080) == 0;
        if (isAscii) {
            bits = seenAscii;
            place = gram >>> 16 << 14 | (gram >>> 8 & 0x7F) << 7 | gram & 0x7F;
        }
        long bit = 1L << place;
        if ((bits[place >>> 6] & bit) != 0) {
            return;
        }
        bits[place >>> 6] |= bit;
        if (isAscii) {
            asciiInPiece =
                    asciiCount == asciiInPiece.length ? Arrays.copyOf(asciiInPiece, asciiCount * 2) : asciiInPiece;
            asciiInPiece[asciiCount++] = place;
        } else {
            inPiece = inPieceCount == inPiece.length ? Arrays.copyOf(inPiece, inPieceCount * 2) : inPiece;
            inPiece[inPieceCount++] = gram;
        }
    }

    private void endPiece(int piece) {
        for (int i = 0; i < asciiCount; i++) {
            int place = asciiInPiece[i];
            seenAscii[place >>> 6] = 0;
            append(place >>> 14 << 4 | place >>> 11 & 0x7, (place & 0x780) << 1 | place & 0x7F, piece);
        }
        for (int i = 0; i < inPieceCount; i++) {
            int gram = inPiece[i];
            seen[gram >>> 6] = 0;
            append(gram >>> HALF_BITS, gram & HALF - 1, piece);
        }
        asciiCount = 0;
        inPieceCount = 0;
    }

    /** A gram of a piece: its lower half, and how far the piece is from that of the entry before. */
    private void append(int half, int low, int piece) {
        int gap = piece - last[half];
        last[half] = piece;
        if (gap < FAR) {
            append(half, (short) (low << GAP_BITS | gap));
        } else {
            append(half, (short) (low << GAP_BITS | FAR));
            append(half, (short) (piece >>> Short.SIZE));
            append(half, (short) piece);
        }
    }

    private void append(int half, short entry) {
        int at = next[half];
        if (at == 0) {
            first[half] = newChunk();
            at = first[half] * CHUNK;
        } else if ((at & CHUNK - 1) == IN_CHUNK) {
            int chunk = newChunk();
            short[] block = blocks[at / BLOCK];
            block[at & BLOCK - 1] = (short) (chunk >>> Short.SIZE);
            block[(at & BLOCK - 1) + 1] = (short) chunk;
            at = chunk * CHUNK;
        }
        blocks[at / BLOCK][at & BLOCK - 1] = entry;
        next[half] = at + 1;
        lengths[half]++;
    }

    private int newChunk() {
        int block = chunks / (BLOCK / CHUNK);
        blocks = block == blocks.length ? Arrays.copyOf(blocks, block * 2) : blocks;
        blocks[block] = blocks[block] == null ? new short[BLOCK] : blocks[block];
        return chunks++;
    }

    /** Pairs of a gram and a piece so far, roughly; two bytes each. */
    long entries() {
        return (long) chunks * CHUNK;
    }

    /**
     * Writes three sections, as {@link GramLists} reads them: the lists, the grams, and where the list of each ends.
     */
    public void write(SectionWriter out, int gramsKind, int endsKind, int postingsKind) throws IOException {
        int[] count = {0};
        forEach((gram, bytes, length) -> {
            out.bytes(bytes, length);
            if (count[0] == grams.length) {
                grams = Arrays.copyOf(grams, grams.length * 2);
                ends = Arrays.copyOf(ends, ends.length * 2);
            }
            grams[count[0]] = gram;
            ends[count[0]++] = Math.toIntExact(out.sectionBytes());
        });
        out.endSection(postingsKind);
        for (int i = 0; i < count[0]; i++) {
            out.u32(grams[i]);
        }
        out.endSection(gramsKind);
        for (int i = 0; i < count[0]; i++) {
            out.u32(ends[i]);
        }
        out.endSection(endsKind);
    }

    /** Tells the lists of all grams so far, by gram. */
    void forEach(Sink sink) throws IOException {
        int[] starts = new int[HALF + 1]; // of the lower halves in the sorted chain
        for (int half = 0; half < HALF; half++) {
            if (lengths[half] == 0) {
                continue;
            }
            sort(half, starts);
            for (int low = 0; low < HALF; low++) {
                if (starts[low] < starts[low + 1]) {
                    int length = encode(starts[low], starts[low + 1]); // first, because it may replace the array
                    sink.list(half << HALF_BITS | low, list, length);
                }
            }
        }
    }

    /** Brings the pieces of a chain into the order of their grams; those of one gram stay in theirs. */
    private void sort(int half, int[] starts) {
        int length = lengths[half];
        collect(half, length);
        chain = chain.length < length ? new int[Math.max(length, chain.length * 2)] : chain;
        Arrays.fill(starts, 0);
        for (int i = 0; i < length; i++) {
            int entry = entries[i] & 0xFFFF;
            starts[(entry >>> GAP_BITS) + 1]++;
            i += (entry & FAR) == FAR ? 2 : 0;
        }
        for (int low = 0; low < HALF; low++) {
            starts[low + 1] += starts[low];
        }
        int[] target = starts.clone();
        int piece = 0;
        for (int i = 0; i < length; i++) {
            int entry = entries[i] & 0xFFFF;
            if ((entry & FAR) == FAR) {
                piece = (entries[i + 1] & 0xFFFF) << Short.SIZE | entries[i + 2] & 0xFFFF;
                i += 2;
            } else {
                piece += entry & FAR;
            }
            chain[target[entry >>> GAP_BITS]++] = piece;
        }
    }

    /** Brings the chunks of a chain together. */
    private void collect(int half, int length) {
        entries = entries.length < length ? new short[Math.max(length, entries.length * 2)] : entries;
        int at = first[half] * CHUNK;
        for (int done = 0; done < length; done += IN_CHUNK) {
            short[] block = blocks[at / BLOCK];
            int start = at & BLOCK - 1;
            System.arraycopy(block, start, entries, done, Math.min(IN_CHUNK, length - done));
            at = ((block[start + IN_CHUNK] & 0xFFFF) << Short.SIZE | block[start + IN_CHUNK + 1] & 0xFFFF) * CHUNK;
        }
    }

    /** Makes the list of a part of the sorted chain. @return its length */
    private int encode(int from, int until) {
        int most = Math.multiplyExact(until - from, 3); // gaps have at most 20 bits
        list = list.length < most ? new byte[Math.max(most, list.length * 2)] : list;
        int at = 0;
        int piece = 0;
        for (int i = from; i < until; i++) {
            at = NamesBuilder.put(list, at, chain[i] - piece);
            piece = chain[i];
        }
        return at;
    }

    /** Forgets everything, so that the tables serve another segment. */
    public void clear() {
        chunks = 1;
        Arrays.fill(next, 0);
        Arrays.fill(lengths, 0);
        Arrays.fill(last, 0);
    }
}
