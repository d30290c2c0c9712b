package dev.oddbeacon.core.segment;

import java.util.Arrays;

/** Bytes one after the other, in an array that grows and is kept. */
final class Bytes {
    private byte[] bytes = new byte[1 << 16];
    private int size;

    void add(byte[] from, int start, int length) {
        if (size + length > bytes.length) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, size + length));
        }
        System.arraycopy(from, start, bytes, size, length);
        size += length;
    }

    /** Of which the first {@link #size} count. */
    byte[] bytes() {
        return bytes;
    }

    int size() {
        return size;
    }

    void clear() {
        size = 0;
    }
}
