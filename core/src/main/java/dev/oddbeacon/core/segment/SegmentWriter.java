package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Writes a segment: many blobs, their text and the postings of its grams. Read by {@link SegmentReader}.
 *
 * <p>Postings name <em>pieces</em>: whole lines of one blob, about 16 KB, so that a rare text in a file of many
 * megabytes costs a piece, not the file. A line is never cut, so a piece holds every match that stays on a line,
 * and all grams of it.
 *
 * <pre>
 *   section      row bytes  what
 *   1 content               the texts in order, UTF-8, each that is not empty followed by one byte FF,
 *                           which no UTF-8 text holds, so that no match goes from one text into the next
 *   2 blobs      40         id (20), state (1: 0 text, 1 binary), encoding (1), what its text hints at and flags (2, see {@link Signs}), number of its first piece (4),
 *                           lines (4), bytes of the file (8); then one row of zeros but for the first piece: how many there are
 *   3 pieces     16         offset in content (8), blob (4), lines of the blob before it (4);
 *                           then one row with the length of content as its offset
 *   4 by id      4          numbers of the blobs, in the order of their ids
 *   5 grams      4          the grams that occur, ascending
 *   6 ends       4          for each gram, where its list ends in postings; it starts where the one before ends
 *   7 postings              for each gram, the numbers of its pieces, ascending: gaps, seven bits a byte, lowest first
 *   8 words                 the distinct words of all texts, case-folded, in the order of their bytes, those of more than 64
 *                           code points or 255 bytes left out; of each: bytes shared with the one before (1), bytes that follow (1), those
 * </pre>
 */
public final class SegmentWriter implements AutoCloseable {
    static final String MAGIC = "ODBSEG03";
    static final int CONTENT = 1;
    static final int BLOBS = 2;
    static final int PIECES = 3;
    static final int BY_ID = 4;
    static final int GRAMS = 5;
    static final int ENDS = 6;
    static final int POSTINGS = 7;
    static final int WORDS = 8;
    static final int BLOB_ROW = 40;
    static final int PIECE_ROW = 16;
    static final byte SEPARATOR = (byte) 0xFF;
    static final int PIECE_BYTES = 1 << 14;
    /** In one segment. */
    static final int MOST_PIECES = PostingsBuilder.MOST_PIECES;

    private record Blob(ObjectId id, BlobState state, TextDecoder.Encoding encoding, Signs signs, int firstPiece, int lines, long bytes) {}

    private record Piece(long offset, int blob, int linesBefore) {}

    private final SectionWriter out;
    private final PostingsBuilder postings;
    private final WordsBuilder words;
    private final List<Blob> blobs = new ArrayList<>();
    private final List<Piece> pieces = new ArrayList<>();

    private SegmentWriter(Path file, PostingsBuilder postings, WordsBuilder words) throws IOException {
        this.out = new SectionWriter(file, MAGIC, 8);
        this.postings = postings;
        this.words = words;
    }

    /** The tables of grams and words are large: who writes several segments in turn keeps a workshop for them. */
    public static final class Workshop {
        private final PostingsBuilder postings = new PostingsBuilder();
        private final WordsBuilder words = new WordsBuilder();

        /** A new segment; the one before must be finished or closed. */
        public SegmentWriter open(Path file) throws IOException {
            postings.clear();
            words.clear();
            return new SegmentWriter(file, postings, words);
        }
    }

    /** What was seen of an added text. */
    public record Added(int lines, Signs signs) {}

    /**
     * Adds a text blob.
     *
     * @param fileBytes the size of the file, which decoding may have changed
     * @return what was seen of it
     */
    public Added addText(ObjectId id, long fileBytes, TextDecoder.Text text) throws IOException {
        byte[] utf8 = text.utf8();
        int blob = blobs.size();
        int firstPiece = pieces.size();
        long base = out.sectionBytes();
        MemorySegment memory = MemorySegment.ofArray(utf8);
        int lines = 0;
        for (int start = 0; start < utf8.length; ) {
            int end = pieceEnd(memory, start);
            postings.add(utf8, start, end, pieces.size());
            pieces.add(new Piece(base + start, blob, lines));
            lines += Lines.count(memory, start, end);
            start = end;
        }
        if (utf8.length > 0) {
            words.add(utf8, 0, utf8.length);
            out.bytes(utf8, utf8.length).u8(SEPARATOR);
        }
        Signs signs = Signs.of(utf8, lines);
        blobs.add(new Blob(id, BlobState.TEXT, text.encoding(), signs, firstPiece, lines, fileBytes));
        return new Added(lines, signs);
    }

    /** Adds a blob of which only is known that it is binary. */
    public void addBinary(ObjectId id, long fileBytes) {
        blobs.add(new Blob(id, BlobState.BINARY, TextDecoder.Encoding.UTF_8, Signs.NONE, pieces.size(), 0, fileBytes));
    }

    private static int pieceEnd(MemorySegment text, int start) {
        long size = text.byteSize();
        if (size - start <= PIECE_BYTES) {
            return (int) size;
        }
        return (int) Math.min(size, Lines.end(text, start + PIECE_BYTES - 1, size) + 1);
    }

    /** Bytes of text so far. */
    public long contentBytes() {
        return out.sectionBytes();
    }

    public int blobs() {
        return blobs.size();
    }

    /** Whether another text of any size might not fit. */
    public boolean isFull() {
        return pieces.size() >= MOST_PIECES / 2;
    }

    /** Completes the file. */
    public Path finish() throws IOException {
        long contentBytes = out.sectionBytes();
        out.endSection(CONTENT);
        writeBlobs();
        writePieces(contentBytes);
        writeById();
        writePostings();
        writeWords();
        return out.finish();
    }

    private void writeBlobs() throws IOException {
        for (Blob blob : blobs) {
            out.id(blob.id).u8(blob.state.ordinal()).u8(blob.encoding.ordinal()).u8(blob.signs.hint().ordinal()).u8(blob.signs.flags())
                    .u32(blob.firstPiece).u32(blob.lines).u64(blob.bytes);
        }
        out.id(new ObjectId(0, 0, 0)).u32(0).u32(pieces.size()).u32(0).u64(0);
        out.endSection(BLOBS);
    }

    private void writePieces(long contentBytes) throws IOException {
        for (Piece piece : pieces) {
            out.u64(piece.offset).u32(piece.blob).u32(piece.linesBefore);
        }
        out.u64(contentBytes).u32(blobs.size()).u32(0);
        out.endSection(PIECES);
    }

    private void writeById() throws IOException {
        int[] byId = IntStream.range(0, blobs.size()).boxed()
                .sorted(Comparator.comparing((Integer blob) -> blobs.get(blob).id)).mapToInt(Integer::intValue).toArray();
        for (int blob : byId) {
            out.u32(blob);
        }
        out.endSection(BY_ID);
    }

    private void writePostings() throws IOException {
        PostingsBuilder.Lists lists = postings.lists();
        for (int i = 0; i < lists.count(); i++) {
            out.u32(lists.grams()[i]);
        }
        out.endSection(GRAMS);
        for (int i = 0; i < lists.count(); i++) {
            out.u32(lists.ends()[i]);
        }
        out.endSection(ENDS);
        out.bytes(lists.postings(), lists.length());
        out.endSection(POSTINGS);
    }

    private void writeWords() throws IOException {
        byte[] before = new byte[WordsBuilder.LONGEST_BYTES];
        int[] length = {0};
        words.forEachSorted((bytes, start, end) -> {
            int difference = Arrays.mismatch(before, 0, length[0], bytes, start, end);
            int shared = difference < 0 ? length[0] : difference;
            int rest = end - start - shared;
            out.u8(shared).u8(rest).bytes(bytes, start + shared, rest);
            System.arraycopy(bytes, start, before, 0, end - start);
            length[0] = end - start;
        });
        out.endSection(WORDS);
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
