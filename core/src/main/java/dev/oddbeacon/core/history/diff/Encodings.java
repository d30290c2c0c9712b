package dev.oddbeacon.core.history.diff;

import dev.oddbeacon.core.text.Utf8;
import java.nio.charset.StandardCharsets;

/** Texts of the past come in any encoding: they are UTF-8, or else are taken for Latin-1. */
final class Encodings {
    private Encodings() {}

    static String string(byte[] bytes, int start, int end) {
        return new String(
                bytes,
                start,
                end - start,
                Utf8.isValid(bytes, start, end) ? StandardCharsets.UTF_8 : StandardCharsets.ISO_8859_1);
    }
}
