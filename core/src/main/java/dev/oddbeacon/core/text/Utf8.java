package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;

/** Reading code points out of valid UTF-8 in place. All offsets are bytes. */
public final class Utf8 {
    private Utf8() {}

    /** The code point that begins at an offset; the offset is below {@code limit} and on a boundary. */
    public static int at(MemorySegment text, long offset, long limit) {
        int lead = text.get(ValueLayout.JAVA_BYTE, offset);
        if (lead >= 0) {
            return lead;
        }
        int length = Math.min(lengthOf(lead), (int) Math.min(4, limit - offset));
        int codePoint = switch (length) {
            case 2 -> lead & 0x1F;
            case 3 -> lead & 0x0F;
            case 4 -> lead & 0x07;
            default -> 0xFFFD;
        };
        for (int i = 1; i < length; i++) {
            codePoint = codePoint << 6 | text.get(ValueLayout.JAVA_BYTE, offset + i) & 0x3F;
        }
        return codePoint;
    }

    /** The code point that ends at an offset; there is one above {@code low}. */
    public static int before(MemorySegment text, long offset, long low) {
        return at(text, startBefore(text, offset, low), offset);
    }

    /** Start of the code point that ends at an offset. */
    public static long startBefore(MemorySegment text, long offset, long low) {
        long start = offset - 1;
        while (start > low && (text.get(ValueLayout.JAVA_BYTE, start) & 0xC0) == 0x80) {
            start--;
        }
        return start;
    }

    /** Bytes of the code point that starts with this byte. */
    public static int lengthOf(int lead) {
        int value = lead & 0xFF;
        return value < 0x80 ? 1 : value < 0xE0 ? 2 : value < 0xF0 ? 3 : 4;
    }

    /** Bytes that a code point takes. */
    public static int length(int codePoint) {
        return codePoint < 0x80 ? 1 : codePoint < 0x800 ? 2 : codePoint < 0x10000 ? 3 : 4;
    }

    /** Writes a code point. @return its bytes */
    public static int put(int codePoint, byte[] into, int at) {
        int bytes = length(codePoint);
        if (bytes == 1) {
            into[at] = (byte) codePoint;
            return 1;
        }
        into[at] = (byte) (0xF00 >> bytes & 0xFF | codePoint >> 6 * (bytes - 1));
        for (int k = 1; k < bytes; k++) {
            into[at + k] = (byte) (0x80 | codePoint >> 6 * (bytes - 1 - k) & 0x3F);
        }
        return bytes;
    }

    /** Bytes that the code points of a range of a string take. */
    public static int length(CharSequence text, int start, int end) {
        int bytes = 0;
        for (int i = start; i < end; ) {
            int codePoint = Character.codePointAt(text, i);
            bytes += length(codePoint);
            i += Character.charCount(codePoint);
        }
        return bytes;
    }

    /** Whether a range holds no byte of a longer code point. */
    public static boolean isAscii(MemorySegment text, long start, long end) {
        int all = 0;
        for (long i = start; i < end; i++) {
            all |= text.get(ValueLayout.JAVA_BYTE, i);
        }
        return all >= 0;
    }

    public static String string(MemorySegment text, long start, long end) {
        byte[] bytes = text.asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE);
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** Whether a range is well-formed: no overlong forms, no surrogates, nothing above U+10FFFF. */
    public static boolean isValid(byte[] bytes, int start, int end) {
        int i = start;
        while (i < end) {
            int lead = bytes[i];
            if (lead >= 0) {
                i++;
                continue;
            }
            lead &= 0xFF;
            int more = lead >= 0xC2 && lead <= 0xDF
                    ? 1
                    : (lead & 0xF0) == 0xE0 ? 2 : lead >= 0xF0 && lead <= 0xF4 ? 3 : -1;
            if (more < 0 || i + more >= end) {
                return false;
            }
            int second = bytes[i + 1] & 0xFF;
            int low = lead == 0xE0 ? 0xA0 : lead == 0xF0 ? 0x90 : 0x80;
            int high = lead == 0xED ? 0x9F : lead == 0xF4 ? 0x8F : 0xBF;
            if (second < low || second > high) {
                return false;
            }
            for (int k = 2; k <= more; k++) {
                if ((bytes[i + k] & 0xC0) != 0x80) {
                    return false;
                }
            }
            i += more + 1;
        }
        return true;
    }

    /** How many UTF-16 units valid bytes are, from the boundary of one character to that of another. */
    public static int units(byte[] utf8, int from, int to) {
        int units = 0;
        for (int i = from; i < to; i++) {
            int b = utf8[i] & 0xFF;
            units += (b & 0xC0) == 0x80 ? 0 : b >= 0xF0 ? 2 : 1;
        }
        return units;
    }
}
