package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.Utf8;
import java.util.Arrays;

/**
 * The n-grams of the index: three successive bytes of the case-folded UTF-8 text of one line, as a number of 24 bits.
 * No gram holds a line feed. Because the folded text is what is cut, one index serves searches that mind case and
 * searches that ignore it, in every script.
 */
public final class Grams {
    public static final int LENGTH = 3;
    static final int SPACE = 1 << 24;

    private Grams() {}

    /** Receives each gram of a text, repeated ones included. */
    interface Sink {
        void gram(int gram);
    }

    /** The distinct grams of a folded text without line feeds, ascending. Empty for texts of under three bytes. */
    public static int[] of(byte[] folded) {
        int[] grams = new int[Math.max(0, folded.length - LENGTH + 1)];
        for (int i = 0; i < grams.length; i++) {
            grams[i] = (folded[i] & 0xFF) << 16 | (folded[i + 1] & 0xFF) << 8 | folded[i + 2] & 0xFF;
        }
        return Arrays.stream(grams).sorted().distinct().toArray();
    }

    /** Folds a range of a UTF-8 text and cuts it into grams. */
    static void cut(byte[] text, int start, int end, Sink sink) {
        int gram = 0;
        int known = 0; // bytes of the line so far, up to three
        for (int i = start; i < end; ) {
            int lead = text[i];
            if (lead >= 0) {
                i++;
                if (lead == '\n') {
                    known = 0;
                    continue;
                }
                gram = (gram << 8 | (lead >= 'A' && lead <= 'Z' ? lead + 0x20 : lead)) & 0xFFFFFF;
                if (++known >= LENGTH) {
                    sink.gram(gram);
                }
                continue;
            }
            int length = Utf8.lengthOf(lead);
            int codePoint = length == 2 ? lead & 0x1F : length == 3 ? lead & 0x0F : lead & 0x07;
            for (int k = 1; k < length; k++) {
                codePoint = codePoint << 6 | text[i + k] & 0x3F;
            }
            i += length;
            int folded = CaseFolding.fold(codePoint);
            int bytes = Utf8.length(folded);
            for (int k = bytes - 1; k >= 0; k--) {
                int part;
                if (bytes == 1) {
                    part = folded;
                } else if (k == bytes - 1) {
                    part = (bytes == 2 ? 0xC0 : bytes == 3 ? 0xE0 : 0xF0) | folded >> 6 * k;
                } else {
                    part = 0x80 | folded >> 6 * k & 0x3F;
                }
                gram = (gram << 8 | part) & 0xFFFFFF;
                if (++known >= LENGTH) {
                    sink.gram(gram);
                }
            }
        }
    }
}
