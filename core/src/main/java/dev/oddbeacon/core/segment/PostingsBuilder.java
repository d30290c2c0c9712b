package dev.oddbeacon.core.segment;

import java.util.Arrays;

/**
 * Collects, for each gram, the pieces that hold it, as gaps between ascending piece numbers, each a variable-length
 * number (seven bits a byte, lowest first, the high bit meaning "more").
 *
 * <p>Most grams of a piece occur in it many times. A set of bits, which fits into the processor's cache, says whether
 * a gram was seen in the piece at hand; only once a piece is the large table asked, whose 2^24 entries lead from a gram
 * to its list without hashing (64 MB). Lists are byte arrays that grow by half.
 */
final class PostingsBuilder implements Grams.Sink {
    private final int[] listOf = new int[Grams.SPACE]; // list number + 1, 0 where the gram has not occurred
    private final long[] seen = new long[Grams.SPACE / Long.SIZE]; // in the piece at hand
    private int[] inPiece = new int[1 << 12]; // the grams that are set in seen
    private int inPieceCount;
    private int[] grams = new int[1 << 16];
    private int[] lastPiece = new int[1 << 16];
    private int[] lengths = new int[1 << 16];
    private byte[][] lists = new byte[1 << 16][];
    private int count;

    @Override
    public void gram(int gram) {
        long bit = 1L << gram;
        if ((seen[gram >>> 6] & bit) != 0) {
            return;
        }
        seen[gram >>> 6] |= bit;
        if (inPieceCount == inPiece.length) {
            inPiece = Arrays.copyOf(inPiece, inPieceCount * 2);
        }
        inPiece[inPieceCount++] = gram;
    }

    /** All grams since the last call are of this piece; pieces come in ascending order. */
    void endPiece(int piece) {
        for (int i = 0; i < inPieceCount; i++) {
            int gram = inPiece[i];
            seen[gram >>> 6] = 0;
            int list = listOf[gram] - 1;
            if (list < 0) {
                list = newList(gram);
            }
            append(list, piece - lastPiece[list]);
            lastPiece[list] = piece;
        }
        inPieceCount = 0;
    }

    private int newList(int gram) {
        if (count == grams.length) {
            grams = Arrays.copyOf(grams, count * 2);
            lastPiece = Arrays.copyOf(lastPiece, count * 2);
            lengths = Arrays.copyOf(lengths, count * 2);
            lists = Arrays.copyOf(lists, count * 2);
        }
        grams[count] = gram;
        lists[count] = new byte[4];
        lengths[count] = 0;
        lastPiece[count] = 0;
        listOf[gram] = ++count;
        return count - 1;
    }

    private void append(int list, int gap) {
        byte[] bytes = lists[list];
        int length = lengths[list];
        if (length + 5 > bytes.length) {
            bytes = lists[list] = Arrays.copyOf(bytes, length + 5 + length / 2);
        }
        int rest = gap;
        while (rest >= 0x80) {
            bytes[length++] = (byte) (rest | 0x80);
            rest >>>= 7;
        }
        bytes[length++] = (byte) rest;
        lengths[list] = length;
    }

    /** Grams that occurred, ascending. */
    int[] grams() {
        int[] sorted = Arrays.copyOf(grams, count);
        Arrays.sort(sorted);
        return sorted;
    }

    byte[] list(int gram) {
        return lists[listOf[gram] - 1];
    }

    /** Bytes of a gram's list that are in use. */
    int length(int gram) {
        return lengths[listOf[gram] - 1];
    }

    /** Forgets everything, so that the table serves another segment. */
    void clear() {
        for (int i = 0; i < count; i++) {
            listOf[grams[i]] = 0;
            lists[i] = null;
        }
        count = 0;
    }
}
