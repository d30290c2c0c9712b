package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Predicate;

/**
 * The dictionary of a segment: its distinct words, case-folded, in the order of their bytes, as {@link SegmentWriter}
 * wrote them.
 */
public final class SegmentWords {
    private static final int BYTE = 0xFF;

    private final MemorySegment words;

    SegmentWords(MemorySegment words) {
        this.words = words;
    }

    /**
     * The words that differ from one by at most so many edits (see {@link dev.oddbeacon.core.text.EditDistance}).
     *
     * <p>Because words are sorted, they share their beginnings, and with them the first rows of the table of distances:
     * only what differs from the word before is worked out, and where a beginning is too far off already, all words
     * with it are passed over.
     *
     * @param folded case-folded
     */
    public List<String> similar(String folded, int edits) {
        return new Walk(folded.codePoints().toArray(), edits).run();
    }

    /** Those of the words that begin with a digit which are wanted. */
    public List<String> numbers(Predicate<String> wanted) {
        List<String> found = new ArrayList<>();
        byte[] word = new byte[2 * BYTE];
        long at = 0;
        while (at < words.byteSize()) {
            int shared = words.get(ValueLayout.JAVA_BYTE, at) & BYTE;
            int more = words.get(ValueLayout.JAVA_BYTE, at + 1) & BYTE;
            MemorySegment.copy(words, ValueLayout.JAVA_BYTE, at + 2, word, shared, more);
            at += 2 + more;
            if (word[0] > '9') {
                break;
            }
            String text = new String(word, 0, shared + more, StandardCharsets.UTF_8);
            if (wanted.test(text)) {
                found.add(text);
            }
        }
        return found;
    }

    private final class Walk {
        private final int[] wanted;
        private final int edits;
        private final int[][] rows = new int[WordsBuilder.LONGEST + 2][];
        private final int[] letters = new int[WordsBuilder.LONGEST + 2];
        private final byte[] word = new byte[4 * WordsBuilder.LONGEST + 4];
        private final int[] lettersAt = new int[word.length + 1]; // complete letters in so many bytes
        private final List<String> found = new ArrayList<>();
        private long at;

        Walk(int[] wanted, int edits) {
            this.wanted = wanted;
            this.edits = edits;
            for (int i = 0; i < rows.length; i++) {
                rows[i] = new int[wanted.length + 1];
            }
            Arrays.setAll(rows[0], i -> i);
        }

        List<String> run() {
            int hopeless = Integer.MAX_VALUE; // words that share this many bytes with the one before are too far off
            int known = 0; // bytes of the word for which rows are worked out
            long size = words.byteSize();
            while (at < size) {
                int shared = words.get(ValueLayout.JAVA_BYTE, at++) & 0xFF;
                int length = shared + (words.get(ValueLayout.JAVA_BYTE, at++) & 0xFF);
                if (shared >= hopeless) {
                    at += length - shared; // its bytes need not be known: the next word that counts shares fewer
                    continue;
                }
                for (int i = shared; i < length; i++) {
                    word[i] = words.get(ValueLayout.JAVA_BYTE, at++);
                }
                known = Math.min(known, shared);
                hopeless = Integer.MAX_VALUE;
                int depth = lettersAt[known];
                int i = startOfLetter(known);
                while (i < length && hopeless == Integer.MAX_VALUE) {
                    int bytes = Utf8.lengthOf(word[i]);
                    letters[++depth] = codePoint(i, bytes);
                    fillRow(depth);
                    Arrays.fill(lettersAt, i + 1, i + bytes, depth - 1);
                    i += bytes;
                    lettersAt[i] = depth;
                    if (isHopeless(depth)) {
                        hopeless = i;
                    }
                }
                known = i;
                if (hopeless == Integer.MAX_VALUE && rows[depth][wanted.length] <= edits) {
                    found.add(new String(word, 0, length, StandardCharsets.UTF_8));
                }
            }
            return found;
        }

        /** A beginning of so many bytes may end within a letter; that letter is worked out again. */
        private int startOfLetter(int bytes) {
            int start = bytes;
            while (start > 0 && (word[start] & 0xC0) == 0x80) {
                start--;
            }
            return start;
        }

        private int codePoint(int start, int bytes) {
            int codePoint = bytes == 1 ? word[start] : word[start] & 0xFF >> bytes + 1;
            for (int k = 1; k < bytes; k++) {
                codePoint = codePoint << 6 | word[start + k] & 0x3F;
            }
            return codePoint;
        }

        private void fillRow(int depth) {
            int[] row = rows[depth];
            int[] above = rows[depth - 1];
            row[0] = depth;
            int letter = letters[depth];
            for (int k = 1; k < row.length; k++) {
                int changed = above[k - 1] + (letter == wanted[k - 1] ? 0 : 1);
                int best = Math.min(changed, Math.min(above[k], row[k - 1]) + 1);
                boolean swapped = depth > 1 && k > 1 && letter == wanted[k - 2] && letters[depth - 1] == wanted[k - 1];
                row[k] = swapped ? Math.min(best, rows[depth - 2][k - 2] + 1) : best;
            }
        }

        /** Nothing that follows can come near: not from this row, nor by a swap from the one above. */
        private boolean isHopeless(int depth) {
            return least(rows[depth]) > edits && least(rows[depth - 1]) >= edits;
        }

        private static int least(int[] row) {
            int least = row[0];
            for (int value : row) {
                least = Math.min(least, value);
            }
            return least;
        }
    }
}
