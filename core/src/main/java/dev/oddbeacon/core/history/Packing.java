package dev.oddbeacon.core.history;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Arrays;

/** Packs texts: Zstandard frames (RFC 8878), which are small and unpacked at about a gigabyte a second. */
final class Packing {
    private static final int LEVEL = 9;

    private Packing() {}

    static byte[] packed(byte[] text) {
        byte[] packed = new byte[Math.toIntExact(Zstd.compressBound(text.length))];
        long length = Zstd.compressByteArray(packed, 0, packed.length, text, 0, text.length, LEVEL);
        if (Zstd.isError(length)) {
            throw new IllegalStateException("a block cannot be packed: " + Zstd.getErrorName(length));
        }
        return Arrays.copyOf(packed, (int) length);
    }

    /**
     * @param bytes how many there are once it is unpacked
     * @throws IllegalStateException if that is not so
     */
    static byte[] unpacked(MemorySegment section, long start, long end, int bytes) {
        byte[] text = new byte[bytes];
        byte[] packed = section.asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE);
        try {
            long length = Zstd.decompressByteArray(text, 0, bytes, packed, 0, packed.length);
            if (Zstd.isError(length) || length != bytes) {
                throw new IllegalStateException("a block is not " + bytes + " bytes long once it is unpacked");
            }
            return text;
        } catch (ZstdException e) {
            throw new IllegalStateException("a block cannot be unpacked", e);
        }
    }
}
