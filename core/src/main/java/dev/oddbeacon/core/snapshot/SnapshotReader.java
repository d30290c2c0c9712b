package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.segment.About;
import dev.oddbeacon.core.segment.DamagedFileException;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SectionFile;
import dev.oddbeacon.core.segment.SectionReader;
import dev.oddbeacon.core.snapshot.SnapshotWriter.FileRow;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.ObjIntConsumer;

/**
 * A snapshot as {@link SnapshotWriter} wrote it, mapped. Files are named by their number in the order of paths. Any
 * number of threads may read; {@link #close} when none does.
 */
public final class SnapshotReader implements AutoCloseable {
    /**
     * Files that stand one after the other.
     *
     * @param to one past the last number
     */
    public record Range(int from, int to) {
        public static final Range NONE = new Range(0, 0);

        public boolean holds(int number) {
            return number >= from && number < to;
        }

        public Range intersection(Range other) {
            int low = Math.max(from, other.from);
            int high = Math.min(to, other.to);
            return low < high ? new Range(low, high) : NONE;
        }

        /** The smallest range that holds both. */
        public Range hull(Range other) {
            return from == to
                    ? other
                    : other.from == other.to ? this : new Range(Math.min(from, other.from), Math.max(to, other.to));
        }
    }

    private final SectionReader sections;
    private final MemorySegment paths;
    private final MemorySegment blocks;
    private final MemorySegment files;
    private final List<String> types;
    private final About about;
    private volatile FileNames fileNames; // made when they are first asked for

    public SnapshotReader(Path file) throws IOException {
        sections = new SectionReader(file, SnapshotWriter.MAGIC);
        try {
            verify();
            paths = sections.section(SnapshotWriter.PATHS);
            blocks = sections.section(SnapshotWriter.BLOCKS);
            files = sections.section(SnapshotWriter.FILES);
            types = types(sections.section(SnapshotWriter.TYPES));
            about = About.read(sections, SnapshotWriter.ABOUT);
        } catch (IOException | RuntimeException e) {
            sections.close();
            throw e;
        }
    }

    private static List<String> types(MemorySegment section) {
        List<String> types = new ArrayList<>();
        for (long at = 0; at < section.byteSize(); ) {
            int length = Byte.toUnsignedInt(section.get(ValueLayout.JAVA_BYTE, at));
            types.add(
                    new String(section.asSlice(at + 1, length).toArray(ValueLayout.JAVA_BYTE), StandardCharsets.UTF_8));
            at += 1 + length;
        }
        return List.copyOf(types);
    }

    /** Whether the file with its name still has the size that it was written with. */
    public boolean isThere() {
        return sections.isThere();
    }

    /** Compares everything with its checksum. */
    public void verify() throws DamagedFileException {
        for (int kind = SnapshotWriter.PATHS; kind <= SnapshotWriter.TYPES; kind++) {
            sections.verify(kind);
        }
    }

    public Path file() {
        return sections.file();
    }

    /** For whom it was written, and by what. */
    public About about() {
        return about;
    }

    public int count() {
        return (int) (files.byteSize() / FileRow.BYTES);
    }

    public SnapshotFile file(int number) {
        return new SnapshotFile(
                path(number), id(number), standing(number), bytes(number), lines(number), type(number), traits(number));
    }

    public ObjectId id(int number) {
        return SectionFile.id(files, row(number) + FileRow.ID);
    }

    public SnapshotFile.Standing standing(int number) {
        return SnapshotFile.Standing.of(files.get(SectionFile.INT, row(number) + FileRow.STANDING));
    }

    public int lines(int number) {
        return files.get(SectionFile.INT, row(number) + FileRow.LINES);
    }

    public long bytes(int number) {
        return files.get(SectionFile.LONG, row(number) + FileRow.SIZE);
    }

    /** The types of files that occur. */
    public List<String> types() {
        return types;
    }

    /** The number of a file's type in {@link #types}. */
    public int typeNumber(int number) {
        return files.get(SectionFile.INT, row(number) + FileRow.TYPE_AND_TRAITS) & 0xFFFF;
    }

    public String type(int number) {
        return types.get(typeNumber(number));
    }

    /** The traits of a file, as {@link dev.oddbeacon.core.source.Traits#mask} has them. */
    public int traits(int number) {
        return files.get(SectionFile.INT, row(number) + FileRow.TYPE_AND_TRAITS) >>> 16;
    }

    public String path(int number) {
        Cursor cursor = new Cursor(number / SnapshotWriter.BLOCK);
        for (int i = number - number % SnapshotWriter.BLOCK; i <= number; i++) {
            cursor.advance();
        }
        return cursor.path();
    }

    /** Tells every path with its number, in order; cheaper than asking for each. */
    public void forEachPath(ObjIntConsumer<String> consumer) {
        if (count() == 0) {
            return;
        }
        Cursor cursor = new Cursor(0);
        for (int i = 0; i < count(); i++) {
            cursor.advance();
            consumer.accept(cursor.path(), i);
        }
    }

    /** What can be told of each file by its path alone. */
    public FileNames fileNames() {
        FileNames found = fileNames;
        if (found == null) {
            found = FileNames.of(this);
            fileNames = found;
        }
        return found;
    }

    /** Receives each path as bytes. */
    @FunctionalInterface
    public interface PathBytesConsumer {
        /** @param path UTF-8, in an array that is used again for the next one */
        void path(byte[] path, int length, int number);
    }

    /** Tells every path with its number, in order, without making a text of it. */
    public void forEachPathBytes(PathBytesConsumer consumer) {
        if (count() == 0) {
            return;
        }
        Cursor cursor = new Cursor(0);
        for (int i = 0; i < count(); i++) {
            cursor.advance();
            consumer.path(cursor.path, cursor.length, i);
        }
    }

    /** The number of the file with a path. */
    public OptionalInt find(String path) {
        int number = lowerBound(path.getBytes(StandardCharsets.UTF_8));
        return number < count() && path(number).equals(path) ? OptionalInt.of(number) : OptionalInt.empty();
    }

    /** The numbers of the files whose paths start with a text. */
    public Range startingWith(String text) {
        byte[] low = text.getBytes(StandardCharsets.UTF_8);
        if (low.length == 0) {
            return new Range(0, count());
        }
        byte[] high = low.clone();
        high[high.length - 1]++; // no byte of UTF-8 is FF
        return new Range(lowerBound(low), lowerBound(high));
    }

    /** The first number whose path is not below a path; the count if there is none. */
    private int lowerBound(byte[] path) {
        int low = 0;
        int high = count();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (Arrays.compareUnsigned(path(middle).getBytes(StandardCharsets.UTF_8), path) < 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    private static long row(int number) {
        return (long) number * FileRow.BYTES;
    }

    /** Reads one path after the other. */
    private final class Cursor {
        private long at;
        private byte[] path = new byte[256];
        private int length;

        Cursor(int block) {
            at = blocks.get(SectionFile.INT, block * 4L);
        }

        void advance() {
            int shared = varint();
            int rest = varint();
            length = shared + rest;
            if (length > path.length) {
                path = Arrays.copyOf(path, length * 2);
            }
            MemorySegment.copy(paths, ValueLayout.JAVA_BYTE, at, path, shared, rest);
            at += rest;
        }

        String path() {
            return new String(path, 0, length, StandardCharsets.UTF_8);
        }

        private int varint() {
            int shift = 0;
            int value = 0;
            int part;
            do {
                part = paths.get(ValueLayout.JAVA_BYTE, at++);
                value |= (part & 0x7F) << shift;
                shift += 7;
            } while (part < 0);
            return value;
        }
    }

    @Override
    public void close() {
        sections.close();
    }
}
