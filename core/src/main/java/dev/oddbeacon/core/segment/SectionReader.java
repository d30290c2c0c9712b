package dev.oddbeacon.core.segment;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.zip.CRC32C;

/**
 * A {@link SectionFile}, mapped; a small one is read instead, as a system allows only so many mappings and an index of many
 * small repositories has more files. Closing unmaps it; nobody may be reading then.
 */
public final class SectionReader implements AutoCloseable {
    private static final int BUFFER = 256 << 10;
    private static final int SMALL = 64 << 10; // bytes
    private static final int VERSION = 6; // where it begins in the magic

    private record Section(int checksum, long offset, MemorySegment bytes) {}

    private final Path file;
    private final Optional<Arena> mapping;
    private final Map<Integer, Section> sections = new HashMap<>();
    private final long size;

    /** @throws DamagedFileException if the header is not what {@link SectionWriter} writes */
    @SuppressWarnings("MustBeClosedChecker") // close does it
    public SectionReader(Path file, String magic) throws IOException {
        this.file = file;
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            this.size = channel.size();
            this.mapping = size <= SMALL ? Optional.empty() : Optional.of(Arena.ofShared());
            try {
                readTable(mapping.isPresent() ? map(channel, mapping.get()) : read(channel), magic);
            } catch (IOException | RuntimeException e) {
                close();
                throw e;
            }
        }
    }

    private MemorySegment map(FileChannel channel, Arena arena) throws IOException {
        return channel.map(FileChannel.MapMode.READ_ONLY, 0, size, arena);
    }

    /** Into memory that is freed when nobody has it any more: closing an arena stops all threads for a moment. */
    private MemorySegment read(FileChannel channel) throws IOException {
        MemorySegment all = Arena.ofAuto().allocate(Math.max(1, size), Long.BYTES);
        ByteBuffer buffer = all.asByteBuffer().limit((int) size);
        while (buffer.hasRemaining() && channel.read(buffer) >= 0) {
            // until all is read, or the file is cut, which its checksums tell
        }
        return all.asSlice(0, size).asReadOnly();
    }

    private void readTable(MemorySegment all, String magic) throws DamagedFileException {
        String begin = size < SectionFile.TABLE
                ? ""
                : new String(all.asSlice(0, 8).toArray(ValueLayout.JAVA_BYTE), StandardCharsets.ISO_8859_1);
        if (!begin.equals(magic)) {
            throw begin.startsWith(magic.substring(0, VERSION))
                    ? DamagedFileException.ofAnotherFormat(file, begin.substring(VERSION), magic.substring(VERSION))
                    : new DamagedFileException(file, "it does not begin with " + magic);
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
            if (offset < 0 || length < 0 || offset > size - length) {
                throw new DamagedFileException(file, "it is cut");
            }
            int kind = all.get(SectionFile.INT, row);
            sections.put(kind, new Section(all.get(SectionFile.INT, row + 4), offset, all.asSlice(offset, length)));
        }
    }

    public Path file() {
        return file;
    }

    /** Bytes of the file. */
    public long size() {
        return size;
    }

    /** Whether there is a section, which an earlier version may not have written. */
    public boolean has(int kind) {
        return sections.containsKey(kind);
    }

    public MemorySegment section(int kind) throws DamagedFileException {
        Section section = sections.get(kind);
        if (section == null) {
            throw new DamagedFileException(file, "section " + kind + " is missing");
        }
        return section.bytes;
    }

    /**
     * Reads a section and compares it with its checksum. It is read from the file that has the name now, not from the
     * mapping: of a file that was cut behind its back, or on a bad sector, a read fails, where the mapping would end the
     * whole process.
     */
    public void verify(int kind) throws DamagedFileException {
        section(kind);
        Section section = sections.get(kind);
        CRC32C crc = new CRC32C();
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            if (channel.size() != size) {
                throw new DamagedFileException(
                        file, "it has " + channel.size() + " bytes and was written with " + size);
            }
            ByteBuffer buffer = ByteBuffer.allocate((int) Math.min(BUFFER, Math.max(1, section.bytes.byteSize())));
            for (long at = 0; at < section.bytes.byteSize(); ) {
                buffer.clear().limit((int) Math.min(buffer.capacity(), section.bytes.byteSize() - at));
                int read = channel.read(buffer, section.offset + at);
                if (read <= 0) {
                    throw new DamagedFileException(file, "it is cut");
                }
                crc.update(buffer.flip());
                at += read;
            }
        } catch (DamagedFileException e) {
            throw e;
        } catch (NoSuchFileException e) {
            throw new DamagedFileException(file, "it is gone");
        } catch (IOException e) {
            throw new DamagedFileException(file, "it cannot be read: " + e.getMessage());
        }
        if ((int) crc.getValue() != section.checksum) {
            throw new DamagedFileException(file, "section " + kind + " does not have the checksum written with it");
        }
    }

    /** Whether the file with this name has the size that it was written with. */
    public boolean isThere() {
        try {
            return Files.size(file) == size;
        } catch (IOException e) {
            return false;
        }
    }

    /** Of the table, which is small. */
    private static int checksum(MemorySegment bytes) {
        CRC32C crc = new CRC32C();
        crc.update(bytes.toArray(ValueLayout.JAVA_BYTE));
        return (int) crc.getValue();
    }

    @Override
    public void close() {
        mapping.ifPresent(Arena::close);
    }
}
