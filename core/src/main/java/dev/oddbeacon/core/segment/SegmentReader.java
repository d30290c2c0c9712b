package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.segment.SegmentWriter.BlobRow;
import dev.oddbeacon.core.segment.SegmentWriter.NameBlockRow;
import dev.oddbeacon.core.segment.SegmentWriter.PieceRow;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;

/**
 * A segment as {@link SegmentWriter} wrote it, mapped. Blobs and pieces are named by their numbers in it. Any number
 * of threads may read; {@link #close} when none does.
 */
public final class SegmentReader implements AutoCloseable {
    private static final int DEEPEST_CONTAINER = 20;
    private static final int LONGEST_NAME = 1_000;

    private final SectionReader sections;
    private final MemorySegment content;
    private final MemorySegment blobs;
    private final MemorySegment pieces;
    private final MemorySegment byId;
    private final MemorySegment regions;
    private final MemorySegment declarations;
    private final GramLists grams;
    private final SegmentNames names;
    private final List<String> languages;
    private final SegmentWords words;
    private final About about;

    /** @throws DamagedFileException if a checksum is wrong; that of the text is not looked at, see {@link #verify} */
    public SegmentReader(Path file) throws IOException {
        sections = new SectionReader(file, SegmentWriter.MAGIC);
        try {
            for (int kind = SegmentWriter.BLOBS; kind <= SegmentWriter.LAST_OF_ALL_VERSIONS; kind++) {
                sections.verify(kind);
            }
            content = sections.section(SegmentWriter.CONTENT);
            blobs = sections.section(SegmentWriter.BLOBS);
            pieces = sections.section(SegmentWriter.PIECES);
            byId = sections.section(SegmentWriter.BY_ID);
            grams = GramLists.read(
                    sections, SegmentWriter.GRAMS, SegmentWriter.ENDS, SegmentWriter.POSTINGS, pieceCount());
            regions = sections.section(SegmentWriter.REGIONS);
            declarations = sections.section(SegmentWriter.DECLARATIONS);
            MemorySegment blocks = sections.section(SegmentWriter.NAME_BLOCKS);
            names = new SegmentNames(
                    sections.section(SegmentWriter.NAMES),
                    blocks,
                    sections.section(SegmentWriter.NAME_LISTS),
                    new GramLists(
                            sections.section(SegmentWriter.NAME_GRAMS),
                            sections.section(SegmentWriter.NAME_GRAM_ENDS),
                            sections.section(SegmentWriter.NAME_GRAM_POSTINGS),
                            (int) (blocks.byteSize() / NameBlockRow.BYTES) - 1));
            languages = new String(
                            sections.section(SegmentWriter.LANGUAGES).toArray(ValueLayout.JAVA_BYTE),
                            StandardCharsets.UTF_8)
                    .lines()
                    .toList();
            words = new SegmentWords(sections.section(SegmentWriter.WORDS));
            about = About.read(sections, SegmentWriter.ABOUT);
        } catch (IOException | RuntimeException e) {
            sections.close();
            throw e;
        }
    }

    public Path file() {
        return sections.file();
    }

    /** For whom it was written, and by what. */
    public About about() {
        return about;
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
        return (int) (blobs.byteSize() / BlobRow.BYTES) - 1;
    }

    public int pieceCount() {
        return (int) (pieces.byteSize() / PieceRow.BYTES) - 1;
    }

    public ObjectId id(int blob) {
        return SectionFile.id(blobs, blobRow(blob) + BlobRow.ID);
    }

    /** Signs in a blob's text about the type and traits of its files. */
    public Signs signs(int blob) {
        return Signs.decoded(
                Byte.toUnsignedInt(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + BlobRow.HINT)),
                Byte.toUnsignedInt(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + BlobRow.FLAGS)));
    }

    public BlobState state(int blob) {
        return BlobState.of(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + BlobRow.STATE));
    }

    public TextDecoder.Encoding encoding(int blob) {
        return TextDecoder.Encoding.of(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + BlobRow.ENCODING));
    }

    /** Its first piece; its last is before the first piece of the next blob. The blob count is allowed. */
    public int firstPiece(int blob) {
        return blobs.get(SectionFile.INT, blobRow(blob) + BlobRow.FIRST_PIECE);
    }

    public int lines(int blob) {
        return blobs.get(SectionFile.INT, blobRow(blob) + BlobRow.LINES);
    }

    /** Bytes of the file as its author wrote it. */
    public long fileBytes(int blob) {
        return blobs.get(SectionFile.LONG, blobRow(blob) + BlobRow.FILE_BYTES);
    }

    /** Start offset of a blob's text in the content. */
    public long start(int blob) {
        return pieceStart(firstPiece(blob));
    }

    /** End offset of a blob's text in the content; equal to its start if it has none. */
    public long end(int blob) {
        int first = firstPiece(blob);
        int next = firstPiece(blob + 1);
        return first == next ? pieceStart(first) : pieceStart(next) - 1;
    }

    public long pieceStart(int piece) {
        return pieces.get(SectionFile.LONG, (long) piece * PieceRow.BYTES);
    }

    /** End offset of a piece: where the next of its blob starts, or with the blob. */
    public long pieceEnd(int piece) {
        long next = pieceStart(piece + 1);
        return blobOf(piece + 1) == blobOf(piece) ? next : next - 1;
    }

    public int blobOf(int piece) {
        return pieces.get(SectionFile.INT, (long) piece * PieceRow.BYTES + PieceRow.BLOB);
    }

    /** The number, from 1, of the line at an offset in a blob's text. */
    public int lineNumber(int blob, long offset) {
        int low = pieceAt(blob, offset);
        int before = pieces.get(SectionFile.INT, (long) low * PieceRow.BYTES + PieceRow.LINES_BEFORE);
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

    /** The pieces in which each gram stands. */
    public GramLists grams() {
        return grams;
    }

    /** The names in its code. */
    public SegmentNames names() {
        return names;
    }

    /** The language that a blob was analysed in; empty if it was not, or could not be. */
    public Optional<Language> language(int blob) {
        int number = Byte.toUnsignedInt(blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + BlobRow.LANGUAGE));
        return number == 0 ? Optional.empty() : Language.named(languages.get(number - 1));
    }

    /** Whether the analysis of a blob was given up. */
    public boolean isGivenUp(int blob) {
        return blobs.get(ValueLayout.JAVA_BYTE, blobRow(blob) + BlobRow.GIVEN_UP) != 0;
    }

    /** Declarations in a piece, and uses at a special position, in the order of their names. */
    public List<PieceStructure.Declared> declarations(int piece) {
        return PieceStructure.declarations(
                part(declarations, piece, PieceRow.DECLARATIONS),
                pieceStart(piece),
                pieces.get(SectionFile.INT, (long) piece * PieceRow.BYTES + PieceRow.DECLARATIONS_BEFORE));
    }

    /** The declaration of a number in a blob. */
    public PieceStructure.Declared declaration(int blob, int number) {
        int low = firstPiece(blob);
        int high = firstPiece(blob + 1) - 1;
        while (low < high) {
            int middle = (low + high + 1) >>> 1;
            if (pieces.get(SectionFile.INT, (long) middle * PieceRow.BYTES + PieceRow.DECLARATIONS_BEFORE) <= number) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        List<PieceStructure.Declared> all = declarations(low);
        return all.get(number - all.getFirst().number());
    }

    /** The innermost declaration that an offset lies in. */
    public Optional<PieceStructure.Declared> enclosing(int blob, long offset) {
        for (int piece = pieceAt(blob, offset); piece >= firstPiece(blob); piece--) {
            List<PieceStructure.Declared> all = declarations(piece);
            int last = all.size() - 1;
            while (last >= 0 && all.get(last).nameStart() > offset) {
                last--;
            }
            if (last >= 0) {
                PieceStructure.Declared found = all.get(last);
                while (found.end() <= offset || found.kind() == Kind.SUPERTYPE) {
                    if (found.parent() < 0) {
                        return Optional.empty();
                    }
                    found = declaration(blob, found.parent());
                }
                return Optional.of(found);
            }
            int before = pieces.get(SectionFile.INT, (long) piece * PieceRow.BYTES + PieceRow.DECLARATIONS_BEFORE);
            if (before == 0) {
                return Optional.empty();
            }
        }
        return Optional.empty();
    }

    /** The containers of a declaration, the outermost first; empty if in nothing but its file. */
    public String container(int blob, PieceStructure.Declared declared) {
        Deque<String> parts = new ArrayDeque<>();
        if (declared.qualifierEnd() > declared.qualifierStart()) {
            parts.push(text(declared.qualifierStart(), declared.qualifierEnd()));
        }
        PieceStructure.Declared at = declared;
        while (at.parent() >= 0 && parts.size() < DEEPEST_CONTAINER) {
            at = declaration(blob, at.parent());
            parts.push(text(at.nameStart(), at.nameEnd()));
            if (at.qualifierEnd() > at.qualifierStart()) {
                parts.push(text(at.qualifierStart(), at.qualifierEnd()));
            }
        }
        return String.join(separator(blob, declared), parts);
    }

    /** The separator between the names of containers and declaration. */
    public String separator(int blob, PieceStructure.Declared declared) {
        return declared.kind() == Kind.HEADING
                ? " > "
                : language(blob).map(Language::separator).orElse(".");
    }

    /** The name of a declaration. */
    public String name(PieceStructure.Declared declared) {
        return text(declared.nameStart(), declared.nameEnd());
    }

    private String text(long start, long end) {
        return new String(
                content.asSlice(start, Math.min(end - start, LONGEST_NAME)).toArray(ValueLayout.JAVA_BYTE),
                StandardCharsets.UTF_8);
    }

    /** The regions of a piece. */
    void regions(int piece, PieceStructure.Regions into) {
        into.read(part(regions, piece, PieceRow.REGIONS), pieceStart(piece));
    }

    /** The piece of a blob that holds an offset. */
    public int pieceAt(int blob, long offset) {
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
        return low;
    }

    private MemorySegment part(MemorySegment section, int piece, int column) {
        long from = pieces.get(SectionFile.INT, (long) piece * PieceRow.BYTES + column) & 0xFFFFFFFFL;
        long to = pieces.get(SectionFile.INT, (long) (piece + 1) * PieceRow.BYTES + column) & 0xFFFFFFFFL;
        return section.asSlice(from, to - from);
    }

    /** The distinct words of its texts. */
    public SegmentWords words() {
        return words;
    }

    /** Whether the file with its name still has the size that it was written with. */
    public boolean isThere() {
        return sections.isThere();
    }

    /** Compares everything with its checksum, the text included. */
    public void verify() throws DamagedFileException {
        for (int kind = SegmentWriter.CONTENT; kind <= SegmentWriter.LAST_OF_ALL_VERSIONS; kind++) {
            sections.verify(kind);
        }
    }

    private static long blobRow(int blob) {
        return (long) blob * BlobRow.BYTES;
    }

    @Override
    public void close() {
        sections.close();
    }
}
