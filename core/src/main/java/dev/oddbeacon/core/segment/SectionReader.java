package dev.oddbeacon.core.segment;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;
import java.util.zip.CRC32C;

/** A {@link SectionFile}, mapped. Closing unmaps it; nobody may be reading then. */
public final class SectionReader implements AutoCloseable {
    private record Section(int kind, int checksum, MemorySegment bytes) {}

    private final Path file;
    private final Arena arena = Arena.ofShared();
    private final Map<Integer, Section> sections = new HashMap<>();
    private final long size;

    /** @throws DamagedFileException if the header is not what {@link SectionWriter} writes */
    public SectionReader(Path file, String magic) throws IOException {
        this.file = file;
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            this.size = channel.size();
            MemorySegment all = channel.map(FileChannel.MapMode.READ_ONLY, 0, size, arena);
            readTable(all, magic);
        } catch (IOException | RuntimeException e) {
            arena.close();
            throw e;
        }
    }

    private void readTable(MemorySegment all, String magic) throws DamagedFileException {
        if (size < SectionFile.TABLE
                || !new String(all.asSlice(0, 8).toArray(ValueLayout.JAVA_BYTE), StandardCharsets.ISO_8859_1)
                        .equals(magic)) {
            throw new DamagedFileException(file, "it does not begin with " + magic);
        }
        int count = all.get(SectionFile.INT, 8);
        if (count < 0 || count > 1_000 || SectionFile.headerBytes(count) > size) {
            throw new DamagedFileException(file, "its table is cut");
        }
        long tableEnd = SectionFile.headerBytes(count) - 4L;
        if (checksum(all.asSlice(0, tableEnd)) != all.get(SectionFile.INT, tableEnd)) {
            throw new DamagedFileException(file, "its table does not have the checksum written with it");
        }
        for (int i = 0; i < count; i++) {
            long row = SectionFile.TABLE + (long) SectionFile.ROW * i;
            long offset = all.get(SectionFile.LONG, row + 8);
            long length = all.get(SectionFile.LONG, row + 16);
            if (offset + length > size) {
                throw new DamagedFileException(file, "it is cut");
            }
            int kind = all.get(SectionFile.INT, row);
            sections.put(kind, new Section(kind, all.get(SectionFile.INT, row + 4), all.asSlice(offset, length)));
        }
    }

    public Path file() {
        return file;
    }

    /** Bytes of the file. */
    public long size() {
        return size;
    }

    public MemorySegment section(int kind) throws DamagedFileException {
        Section section = sections.get(kind);
        if (section == null) {
            throw new DamagedFileException(file, "section " + kind + " is missing");
        }
        return section.bytes;
    }

    /** Reads a section and compares it with its checksum. */
    public void verify(int kind) throws DamagedFileException {
        try {
            if (checksum(section(kind)) == sections.get(kind).checksum) {
                return;
            }
        } catch (InternalError e) { // what the JVM makes of a file that was cut behind its back
            throw new DamagedFileException(file, "it is cut");
        }
        throw new DamagedFileException(file, "section " + kind + " does not have the checksum written with it");
    }

    private static int checksum(MemorySegment bytes) {
        CRC32C crc = new CRC32C();
        long slice = 1 << 30;
        for (long at = 0; at < bytes.byteSize(); at += slice) {
            crc.update(bytes.asSlice(at, Math.min(slice, bytes.byteSize() - at)).asByteBuffer());
        }
        return (int) crc.getValue();
    }

    @Override
    public void close() {
        arena.close();
    }
}
