package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
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
 *   2 blobs      44         id (20), state (1: 0 text, 1 binary), encoding (1), what its text hints at and flags (2,
 * see {@link Signs}), number of its first piece (4),
 *                           lines (4), bytes of the file (8), its language (1; 0 if it was not analysed), whether
 * analysis was given up (1), zero (2);
 *                           then one row of zeros but for the first piece: how many there are
 *   3 pieces     28         offset in content (8), blob (4), lines of the blob before it (4), where its regions start
 * (4), where its declarations start (4),
 *                           declarations of the blob before it (4); then one row with the length of content as its
 * offset
 *   4 by id      4          numbers of the blobs, in the order of their ids
 *   5 grams      4          the grams that occur, ascending
 *   6 ends       4          for each gram, where its list ends in postings; it starts where the one before ends
 *   7 postings              for each gram, the numbers of its pieces, ascending: gaps, seven bits a byte, lowest first
 *   8 words                 the distinct words of all texts, case-folded, in the order of their bytes, those of more
 * than 64
 *                           code points or 255 bytes left out; of each: bytes shared with the one before (1), bytes
 * that follow (1), those
 *   9 languages             names of the languages that blobs were analysed in, each with a line feed
 *  10 regions               see {@link StructureWriter}
 *  11 declarations          see {@link StructureWriter}
 *  12 names                 the distinct names in code, in the order of their bytes with capitals as small letters, in
 * blocks that are a kilobyte once unpacked; of each: bytes shared
 *                           with the one before in the block (1), bytes that follow (as in postings), those; longer
 * names than 1,000 bytes are left out
 *  13 name blocks 8         where each block of names starts (4), and where its lists do (4); then one row with the
 * ends
 *  14 name lists            for each name its bytes, then for each piece that holds it: the gap, twice its uses, plus
 * one if it is declared there too; then how often,
 *                           and the kind (1) of each declaration; uses of a special position are told here as well
 *  15 to 17                 as 5 to 7, of the blocks of names, each name a line
 *  18 about                 version of the analysis (4), the group of repositories; see {@link About}
 * </pre>
 */
public final class SegmentWriter implements AutoCloseable {
    static final String MAGIC = "ODBSEG05";
    static final int CONTENT = 1;
    static final int BLOBS = 2;
    static final int PIECES = 3;
    static final int BY_ID = 4;
    static final int GRAMS = 5;
    static final int ENDS = 6;
    static final int POSTINGS = 7;
    static final int WORDS = 8;
    static final int LANGUAGES = 9;
    static final int REGIONS = 10;
    static final int DECLARATIONS = 11;
    static final int NAMES = 12;
    static final int NAME_BLOCKS = 13;
    static final int NAME_LISTS = 14;
    static final int NAME_GRAMS = 15;
    static final int NAME_GRAM_ENDS = 16;
    static final int NAME_GRAM_POSTINGS = 17;
    static final int LAST_OF_ALL_VERSIONS = NAME_GRAM_POSTINGS;
    static final int ABOUT = 18;
    /** Offsets in a row of section 2. */
    static final class BlobRow {
        static final int ID = 0;
        static final int STATE = 20;
        static final int ENCODING = 21;
        static final int HINT = 22;
        static final int FLAGS = 23;
        static final int FIRST_PIECE = 24;
        static final int LINES = 28;
        static final int FILE_BYTES = 32;
        static final int LANGUAGE = 40;
        static final int GIVEN_UP = 41;
        static final int ZERO = 42;
        static final int BYTES = 44;

        private BlobRow() {}
    }

    /** Offsets in a row of section 3. */
    static final class PieceRow {
        static final int START = 0;
        static final int BLOB = 8;
        static final int LINES_BEFORE = 12;
        static final int REGIONS = 16;
        static final int DECLARATIONS = 20;
        static final int DECLARATIONS_BEFORE = 24;
        static final int BYTES = 28;

        private PieceRow() {}
    }

    /** Offsets in a row of section 13. */
    static final class NameBlockRow {
        static final int NAMES = 0;
        static final int LISTS = 4;
        static final int BYTES = 8;

        private NameBlockRow() {}
    }

    private static final int NAME_BLOCK_BYTES = 1 << 10;
    private static final int MOST_SHARED = 255;
    static final byte SEPARATOR = (byte) 0xFF;
    static final int PIECE_BYTES = 1 << 14;
    /** Entries of postings in memory, two bytes each; a hundred megabytes of source have about as many. */
    private static final long MOST_ENTRIES = 40 << 20;

    private static final int MOST_WORD_BYTES = 32 << 20;
    /** Most pieces in one segment. */
    static final int MOST_PIECES = PostingsBuilder.MOST_PIECES;

    private record Blob(
            ObjectId id,
            BlobState state,
            TextDecoder.Encoding encoding,
            Signs signs,
            int firstPiece,
            int lines,
            long bytes,
            int language,
            boolean givenUp) {}

    private record Piece(
            long offset, int blob, int linesBefore, int regions, int declarations, int declarationsBefore) {}

    private final SectionWriter out;
    private final PostingsBuilder postings;
    private final WordsBuilder words;
    private final NamesBuilder names;
    private final StructureWriter structure;
    private final Bytes namesText;
    private final Analyser analyser;
    private final String group;
    private final List<String> languages = new ArrayList<>();
    private final List<Blob> blobs = new ArrayList<>();
    private final List<Piece> pieces = new ArrayList<>();

    private SegmentWriter(Path file, String group, Workshop workshop) throws IOException {
        this.out = new SectionWriter(file, MAGIC, ABOUT);
        this.group = group;
        this.postings = workshop.postings;
        this.words = workshop.words;
        this.names = workshop.names;
        this.structure = workshop.structure;
        this.namesText = workshop.namesText;
        this.analyser = workshop.analyser;
    }

    /** The tables of grams and words are large: who writes several segments in turn keeps a workshop for them. */
    public static final class Workshop {
        private final PostingsBuilder postings = new PostingsBuilder();
        private final WordsBuilder words = new WordsBuilder();
        private final NamesBuilder names = new NamesBuilder();
        private final StructureWriter structure = new StructureWriter(names);
        private final Bytes namesText = new Bytes();
        private final Analyser analyser = new Analyser();

        /**
         * A new segment; the one before must be finished or closed.
         *
         * @param group of the repositories whose text it will hold
         */
        public SegmentWriter open(Path file, String group) throws IOException {
            postings.clear();
            words.clear();
            names.clear();
            structure.clear();
            return new SegmentWriter(file, group, this);
        }
    }

    /** Facts about an added text. */
    public record Added(int lines, Signs signs, boolean givenUp) {}

    /**
     * Adds a text blob.
     *
     * @param fileBytes the size of the file, which decoding may have changed
     * @param language says from what was seen of the text in which language to analyse it
     * @return what was seen of it
     */
    public Added addText(
            ObjectId id, long fileBytes, TextDecoder.Text text, Function<Signs, Optional<Language>> language)
            throws IOException {
        byte[] utf8 = text.utf8();
        int blob = blobs.size();
        int firstPiece = pieces.size();
        long base = out.sectionBytes();
        MemorySegment memory = MemorySegment.ofArray(utf8);
        int lines = Lines.count(memory, 0, utf8.length);
        Signs signs = Signs.of(utf8, lines);
        Optional<Language> known = language.apply(signs);
        Optional<Analysis> analysis = known.map(some -> analyser.analyse(some, utf8));
        analysis.ifPresent(some -> structure.begin(utf8, some));
        int before = 0;
        for (int start = 0; start < utf8.length; ) {
            int end = pieceEnd(memory, start);
            postings.add(utf8, start, end, pieces.size());
            pieces.add(new Piece(
                    base + start,
                    blob,
                    before,
                    structure.regionBytes(),
                    structure.declarationBytes(),
                    analysis.isPresent() ? structure.declarationsBefore() : 0));
            if (analysis.isPresent()) {
                structure.piece(start, end, pieces.size() - 1);
            }
            before += Lines.count(memory, start, end);
            start = end;
        }
        if (utf8.length > 0) {
            words.add(utf8, 0, utf8.length);
            out.bytes(utf8, utf8.length).u8(SEPARATOR);
        }
        boolean givenUp = analysis.isPresent() && !analysis.get().complete();
        blobs.add(new Blob(
                id,
                BlobState.TEXT,
                text.encoding(),
                signs,
                firstPiece,
                lines,
                fileBytes,
                known.map(this::number).orElse(0),
                givenUp));
        return new Added(lines, signs, givenUp);
    }

    private int number(Language language) {
        if (!languages.contains(language.name())) {
            languages.add(language.name());
        }
        return languages.indexOf(language.name()) + 1;
    }

    /** Adds a blob of which only is known that it is binary. */
    public void addBinary(ObjectId id, long fileBytes) {
        blobs.add(new Blob(
                id, BlobState.BINARY, TextDecoder.Encoding.UTF_8, Signs.NONE, pieces.size(), 0, fileBytes, 0, false));
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

    /**
     * Whether another text of some size might not fit. What is in memory until the segment is finished depends on the
     * text, not on its size alone: every three letters of noise are a new gram of their piece, and every word is a new
     * word.
     */
    public boolean isFull(long nextBytes) {
        return pieces.size() >= MOST_PIECES / 2
                || postings.entries() + nextBytes > MOST_ENTRIES
                || words.bytes() + names.bytes() > MOST_WORD_BYTES;
    }

    /** Completes the file. */
    public Path finish() throws IOException {
        long contentBytes = out.sectionBytes();
        out.endSection(CONTENT);
        writeBlobs();
        writePieces(contentBytes);
        writeById();
        postings.write(out, GRAMS, ENDS, POSTINGS);
        writeWords();
        writeStructure();
        writeNames();
        About.now(group).write(out, ABOUT);
        return out.finish();
    }

    private void writeBlobs() throws IOException {
        for (Blob blob : blobs) {
            out.row()
                    .id(blob.id)
                    .at(BlobRow.STATE)
                    .u8(blob.state.code())
                    .at(BlobRow.ENCODING)
                    .u8(blob.encoding.code())
                    .at(BlobRow.HINT)
                    .u8(blob.signs.hint().code())
                    .at(BlobRow.FLAGS)
                    .u8(blob.signs.flags())
                    .at(BlobRow.FIRST_PIECE)
                    .u32(blob.firstPiece)
                    .at(BlobRow.LINES)
                    .u32(blob.lines)
                    .at(BlobRow.FILE_BYTES)
                    .u64(blob.bytes)
                    .at(BlobRow.LANGUAGE)
                    .u8(blob.language)
                    .at(BlobRow.GIVEN_UP)
                    .u8(blob.givenUp ? 1 : 0)
                    .at(BlobRow.ZERO)
                    .u8(0)
                    .u8(0)
                    .at(BlobRow.BYTES);
        }
        out.row()
                .id(new ObjectId(0, 0, 0))
                .u32(0)
                .at(BlobRow.FIRST_PIECE)
                .u32(pieces.size())
                .u32(0)
                .u64(0)
                .u32(0)
                .at(BlobRow.BYTES);
        out.endSection(BLOBS);
    }

    private void writePieces(long contentBytes) throws IOException {
        for (Piece piece : pieces) {
            out.row()
                    .at(PieceRow.START)
                    .u64(piece.offset)
                    .at(PieceRow.BLOB)
                    .u32(piece.blob)
                    .at(PieceRow.LINES_BEFORE)
                    .u32(piece.linesBefore)
                    .at(PieceRow.REGIONS)
                    .u32(piece.regions)
                    .at(PieceRow.DECLARATIONS)
                    .u32(piece.declarations)
                    .at(PieceRow.DECLARATIONS_BEFORE)
                    .u32(piece.declarationsBefore)
                    .at(PieceRow.BYTES);
        }
        out.row()
                .u64(contentBytes)
                .u32(blobs.size())
                .u32(0)
                .at(PieceRow.REGIONS)
                .u32(structure.regionBytes())
                .at(PieceRow.DECLARATIONS)
                .u32(structure.declarationBytes())
                .u32(0)
                .at(PieceRow.BYTES);
        out.endSection(PIECES);
    }

    private void writeById() throws IOException {
        int[] byId = IntStream.range(0, blobs.size())
                .boxed()
                .sorted(Comparator.comparing((Integer blob) -> blobs.get(blob).id))
                .mapToInt(Integer::intValue)
                .toArray();
        for (int blob : byId) {
            out.u32(blob);
        }
        out.endSection(BY_ID);
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

    private void writeStructure() throws IOException {
        byte[] all = String.join("", languages.stream().map(name -> name + "\n").toList())
                .getBytes(StandardCharsets.UTF_8);
        out.bytes(all, all.length);
        out.endSection(LANGUAGES);
        out.bytes(structure.regions(), structure.regionBytes());
        out.endSection(REGIONS);
        out.bytes(structure.declarations(), structure.declarationBytes());
        out.endSection(DECLARATIONS);
    }

    /** What stands of each name goes to the file at once; the names wait in memory, as there is less of them. */
    private void writeNames() throws IOException {
        List<int[]> blocks = new ArrayList<>();
        byte[] size = new byte[8];
        byte[] block = new byte[NAME_BLOCK_BYTES * 2 + NamesBuilder.LONGEST];
        int[] filled = {0};
        int[] before = {0, 0}; // the name before
        namesText.clear();
        postings.clear();
        names.forEachSorted((bytes, start, end, list, length) -> {
            boolean isFirst = filled[0] == 0;
            if (isFirst) {
                blocks.add(new int[] {namesText.size(), (int) out.sectionBytes()});
            }
            int differs = isFirst ? 0 : Arrays.mismatch(bytes, before[0], before[1], bytes, start, end);
            int shared = Math.min(MOST_SHARED, differs < 0 ? before[1] - before[0] : differs);
            size[0] = (byte) shared;
            namesText.add(size, 0, NamesBuilder.put(size, 1, end - start - shared));
            namesText.add(bytes, start + shared, end - start - shared);
            before[0] = start;
            before[1] = end;
            System.arraycopy(bytes, start, block, filled[0], end - start);
            filled[0] += end - start;
            block[filled[0]++] = '\n';
            out.bytes(size, NamesBuilder.put(size, 0, length)).bytes(list, length);
            if (filled[0] >= NAME_BLOCK_BYTES) {
                postings.add(block, 0, filled[0], blocks.size() - 1);
                filled[0] = 0;
            }
        });
        if (filled[0] > 0) {
            postings.add(block, 0, filled[0], blocks.size() - 1);
        }
        int listBytes = (int) out.sectionBytes();
        out.endSection(NAME_LISTS);
        out.bytes(namesText.bytes(), namesText.size());
        out.endSection(NAMES);
        for (int[] row : blocks) {
            out.u32(row[0]).u32(row[1]);
        }
        out.u32(namesText.size()).u32(listBytes);
        out.endSection(NAME_BLOCKS);
        postings.write(out, NAME_GRAMS, NAME_GRAM_ENDS, NAME_GRAM_POSTINGS);
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
