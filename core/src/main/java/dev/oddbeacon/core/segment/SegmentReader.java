package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * A segment as {@link SegmentWriter} wrote it, mapped. Blobs and pieces are named by their numbers in it. Any number
 * of threads may read; {@link #close} when none does.
 */
public final class SegmentReader implements AutoCloseable {
    private static final TextDecoder.Encoding[] ENCODINGS = TextDecoder.Encoding.values();
    private static final BlobState[] STATES = BlobState.values();

    private final SectionReader sections;
    private final MemorySegment content;
    private final MemorySegment blobs;
    private final MemorySegment pieces;
    private final MemorySegment byId;
    private final MemorySegment grams;
    private final MemorySegment ends;
    private final MemorySegment postings;
    private final SegmentWords words;

    /** @throws DamagedFileException if a checksum is wrong; that of the text is not looked at, see {@link #verify} */
    public SegmentReader(Path file) throws IOException {
        sections = new SectionReader(file, SegmentWriter.MAGIC);
        try {
            for (int kind = SegmentWriter.BLOBS; kind <= SegmentWriter.WORDS; kind++) {
                sections.verify(kind);
            }
            content = sections.section(SegmentWriter.CONTENT);
            blobs = sections.section(SegmentWriter.BLOBS);
            pieces = sections.section(SegmentWriter.PIECES);
            byId = sections.section(SegmentWriter.BY_ID);
            grams = sections.section(SegmentWriter.GRAMS);
            ends = sections.section(SegmentWriter.ENDS);
            postings = sections.section(SegmentWriter.POSTINGS);
            words = new SegmentWords(sections.section(SegmentWriter.WORDS));
        } catch (IOException | RuntimeException e) {
            sections.close();
            throw e;
        }
    }

    public Path file() {
        return sections.file();
    }

    /** Bytes of the file. */
    public long size() {
        return sections.size();
    }

    /** All texts, one after the other. */
    public MemorySegment content() {
        return content;
    }

    public int blobCount() {
        return (int) (blobs.byteSize() / SegmentWriter.BLOB_ROW) - 1;
    }

    public int pieceCount() {
        return (int) (pieces.byteSize() / SegmentWriter.PIECE_ROW) - 1;
    }

    public ObjectId id(int blob) {
        long row = blobRow(blob);
        return new ObjectId(blobs.get(SectionFile.LONG_BIG, row), blobs.get(SectionFile.LONG_BIG, row + 8), blobs.get(SectionFile.INT_BIG, row + 16));
    }

    /** What the text of a blob says about the files that it stands in. */
    public Signs signs(int blob) {
        return Signs.decoded(Byte.toUnsignedInt(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + 22)), Byte.toUnsignedInt(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + 23)));
    }

    public BlobState state(int blob) {
        return STATES[blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + 20)];
    }

    public TextDecoder.Encoding encoding(int blob) {
        return ENCODINGS[blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + 21)];
    }

    /** Its first piece; its last is before the first piece of the next blob. The blob count is allowed. */
    public int firstPiece(int blob) {
        return blobs.get(SectionFile.INT, blobRow(blob) + 24);
    }

    public int lines(int blob) {
        return blobs.get(SectionFile.INT, blobRow(blob) + 28);
    }

    /** Bytes of the file as its author wrote it. */
    public long fileBytes(int blob) {
        return blobs.get(SectionFile.LONG, blobRow(blob) + 32);
    }

    /** Where a blob's text starts in content. */
    public long start(int blob) {
        return pieceStart(firstPiece(blob));
    }

    /** Where a blob's text ends in content; equal to its start if it has none. */
    public long end(int blob) {
        int first = firstPiece(blob);
        int next = firstPiece(blob + 1);
        return first == next ? pieceStart(first) : pieceStart(next) - 1;
    }

    public long pieceStart(int piece) {
        return pieces.get(SectionFile.LONG, (long) piece * SegmentWriter.PIECE_ROW);
    }

    /** Where a piece ends: where the next of its blob starts, or with the blob. */
    public long pieceEnd(int piece) {
        long next = pieceStart(piece + 1);
        return blobOf(piece + 1) == blobOf(piece) ? next : next - 1;
    }

    public int blobOf(int piece) {
        return pieces.get(SectionFile.INT, (long) piece * SegmentWriter.PIECE_ROW + 8);
    }

    /** The number, from 1, of the line at an offset in a blob's text. */
    public int lineNumber(int blob, long offset) {
        int low = firstPiece(blob);
        int high = firstPiece(blob + 1) - 1;
        while (low < high) {
            int middle = (low + high + 1) >>> 1;
            if (pieceStart(middle) <= offset) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        int before = pieces.get(SectionFile.INT, (long) low * SegmentWriter.PIECE_ROW + 12);
        return before + Lines.feeds(content, pieceStart(low), offset) + 1;
    }

    /** The number of the blob with an id, or -1. */
    public int find(ObjectId id) {
        int low = 0;
        int high = blobCount() - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            int blob = byId.get(SectionFile.INT, middle * 4L);
            int order = id(blob).compareTo(id);
            if (order == 0) {
                return blob;
            } else if (order < 0) {
                low = middle + 1;
            } else {
                high = middle - 1;
            }
        }
        return -1;
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
        return ends.get(SectionFile.INT, list * 4L) - listStart(list);
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

    /** Those of some pieces, given and returned ascending, that a list has as well. */
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

    /** Goes through a list, which is copied first: reading an array is much faster than reading mapped memory byte by byte. */
    private final class Gaps {
        private final byte[] bytes;
        private int at;
        private int piece;

        Gaps(int list) {
            bytes = new byte[listBytes(list)];
            MemorySegment.copy(postings, ValueLayout.JAVA_BYTE, listStart(list), bytes, 0, bytes.length);
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

    private int listStart(int list) {
        return list == 0 ? 0 : ends.get(SectionFile.INT, (list - 1) * 4L);
    }

    /** The distinct words of its texts. */
    public SegmentWords words() {
        return words;
    }

    /** Compares everything with its checksum, the text included. */
    public void verify() throws DamagedFileException {
        for (int kind = SegmentWriter.CONTENT; kind <= SegmentWriter.WORDS; kind++) {
            sections.verify(kind);
        }
    }

    private static long blobRow(int blob) {
        return (long) blob * SegmentWriter.BLOB_ROW;
    }

    @Override
    public void close() {
        sections.close();
    }
}
