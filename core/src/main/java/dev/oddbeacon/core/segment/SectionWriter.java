package dev.oddbeacon.core.segment;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32C;

/**
 * Writes a {@link SectionFile}, one section after the other. Until {@link #finish} the file has another name, so
 * that a file of the final name is always whole and on disk. Not thread-safe.
 */
public final class SectionWriter implements AutoCloseable {
    private record Row(int kind, int checksum, long offset, long length) {}

    private final Path target;
    private final Path unfinished;
    private final FileChannel channel;
    private final String magic;
    private final int sections;
    private final List<Row> rows = new ArrayList<>();
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(1 << 20).order(ByteOrder.LITTLE_ENDIAN);
    private final CRC32C checksum = new CRC32C();
    private long position;
    private long sectionStart;
    private long rowStart;

    /** @param magic 8 ASCII characters */
    public SectionWriter(Path target, String magic, int sections) throws IOException {
        this.target = target;
        this.unfinished = target.resolveSibling(target.getFileName() + ".unfinished");
        this.magic = magic;
        this.sections = sections;
        this.channel = FileChannel.open(
                unfinished, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE);
        this.position = SectionFile.aligned(SectionFile.headerBytes(sections));
        this.sectionStart = position;
    }

    public SectionWriter bytes(byte[] bytes, int length) throws IOException {
        return bytes(bytes, 0, length);
    }

    public SectionWriter bytes(byte[] bytes, int start, int length) throws IOException {
        int done = 0;
        while (done < length) {
            if (!buffer.hasRemaining()) {
                flush();
            }
            int count = Math.min(buffer.remaining(), length - done);
            buffer.put(bytes, start + done, count);
            done += count;
        }
        return this;
    }

    /** Begins a row of a section that consists of rows of one length. */
    public SectionWriter row() {
        rowStart = sectionBytes();
        return this;
    }

    /** Asserts the offset of the next field in its row: readers use the same name for it. */
    public SectionWriter at(int offset) {
        assert sectionBytes() - rowStart == offset
                : "at " + (sectionBytes() - rowStart) + " of the row, not at " + offset;
        return this;
    }

    public SectionWriter u8(int value) throws IOException {
        room(1).put((byte) value);
        return this;
    }

    public SectionWriter u32(int value) throws IOException {
        room(4).putInt(value);
        return this;
    }

    public SectionWriter u64(long value) throws IOException {
        room(8).putLong(value);
        return this;
    }

    public SectionWriter id(ObjectId id) throws IOException {
        room(ObjectId.BYTES)
                .order(ByteOrder.BIG_ENDIAN)
                .putLong(id.high())
                .putLong(id.middle())
                .putInt(id.low())
                .order(ByteOrder.LITTLE_ENDIAN);
        return this;
    }

    /** Bytes of the current section so far. */
    public long sectionBytes() {
        return position + buffer.position() - sectionStart;
    }

    /** Ends the current section. */
    public void endSection(int kind) throws IOException {
        flush();
        long length = position - sectionStart;
        rows.add(new Row(
                kind,
                (int) checksum.getValue(),
                length == 0 ? 0 : sectionStart,
                length)); // an empty one may lie past the end
        checksum.reset();
        position = SectionFile.aligned(position);
        sectionStart = position;
    }

    /** Writes the table, brings all to the disk and gives the file its name. */
    public Path finish() throws IOException {
        if (rows.size() != sections) {
            throw new IllegalStateException(rows.size() + " sections written, " + sections + " announced");
        }
        ByteBuffer header =
                ByteBuffer.allocate(SectionFile.headerBytes(sections)).order(ByteOrder.LITTLE_ENDIAN);
        header.put(magic.getBytes(StandardCharsets.US_ASCII)).putInt(sections).putInt(0);
        for (Row row : rows) {
            header.putInt(row.kind).putInt(row.checksum).putLong(row.offset).putLong(row.length);
        }
        CRC32C crc = new CRC32C();
        crc.update(header.array(), 0, header.position());
        header.putInt((int) crc.getValue()).flip();
        channel.write(header, 0);
        channel.force(true);
        channel.close();
        Files.move(unfinished, target, StandardCopyOption.ATOMIC_MOVE);
        try (FileChannel folder = FileChannel.open(target.toAbsolutePath().getParent())) {
            folder.force(true);
        }
        return target;
    }

    /** Without a {@link #finish} before it, leaves nothing behind. */
    @Override
    public void close() throws IOException {
        if (channel.isOpen()) {
            channel.close();
            Files.deleteIfExists(unfinished);
        }
    }

    private ByteBuffer room(int bytes) throws IOException {
        if (buffer.remaining() < bytes) {
            flush();
        }
        return buffer;
    }

    private void flush() throws IOException {
        buffer.flip();
        checksum.update(buffer.duplicate());
        while (buffer.hasRemaining()) {
            position += channel.write(buffer, position);
        }
        buffer.clear();
    }
}
