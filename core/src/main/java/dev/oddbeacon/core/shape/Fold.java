package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.text.CaseFolding;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Compares ranges of UTF-8 without minding case. */
final class Fold {
    private Fold() {}

    static boolean same(byte[] a, int aStart, int aEnd, byte[] b, int bStart, int bEnd) {
        int length = Math.min(aEnd - aStart, bEnd - bStart);
        for (int i = 0; i < length; i++) {
            byte x = a[aStart + i];
            byte y = b[bStart + i];
            if (x < 0 || y < 0) {
                return Arrays.equals(folded(a, aStart, aEnd), folded(b, bStart, bEnd));
            }
            if (lower(x) != lower(y)) {
                return false;
            }
        }
        return aEnd - aStart == bEnd - bStart;
    }

    private static int lower(byte c) {
        return c >= 'A' && c <= 'Z' ? c | 0x20 : c;
    }

    private static int[] folded(byte[] text, int start, int end) {
        return CaseFolding.fold(new String(text, start, end - start, StandardCharsets.UTF_8));
    }
}
