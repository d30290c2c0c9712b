package dev.oddbeacon.core.text;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/**
 * From a file's bytes to its text. UTF-8 where the bytes are valid UTF-8, UTF-16 where a mark says so, Latin-1 else,
 * in which every byte is a character, so that no text is lost. A NUL among the first 8,000 bytes means binary,
 * Git's own rule.
 *
 * <p>The text comes out as UTF-8 without a byte order mark, and with LF for CRLF: a CR before a line feed is not text.
 */
public final class TextDecoder {
    private static final int PROBE = 8_000;

    private TextDecoder() {}

    /** The encoding of a file. */
    public enum Encoding implements Coded {
        UTF_8(0, "UTF-8"),
        UTF_16LE(1, "UTF-16LE"),
        UTF_16BE(2, "UTF-16BE"),
        LATIN_1(3, "ISO-8859-1");

        private static final Encoding[] BY_CODE = Coded.byCode(values());

        private final int code;
        private final String label;

        Encoding(int code, String label) {
            this.code = code;
            this.label = label;
        }

        @Override
        public int code() {
            return code;
        }

        public static Encoding of(int code) {
            return BY_CODE[code];
        }

        /** The name that IANA has for it. */
        public String label() {
            return label;
        }
    }

    /** @param utf8 the text; may be shorter or longer than the file */
    public record Text(byte[] utf8, Encoding encoding) {}

    /** The text of a file, or nothing if it is binary. The array is not changed; it may be part of the result. */
    public static Optional<Text> decode(byte[] file) {
        if (startsWith(file, 0xFF, 0xFE)) {
            return utf16(file, StandardCharsets.UTF_16LE)
                    .map(text -> new Text(withoutCarriageReturns(text), Encoding.UTF_16LE));
        }
        if (startsWith(file, 0xFE, 0xFF)) {
            return utf16(file, StandardCharsets.UTF_16BE)
                    .map(text -> new Text(withoutCarriageReturns(text), Encoding.UTF_16BE));
        }
        for (int i = 0; i < Math.min(PROBE, file.length); i++) {
            if (file[i] == 0) {
                return Optional.empty();
            }
        }
        byte[] body = startsWith(file, 0xEF, 0xBB, 0xBF) ? Arrays.copyOfRange(file, 3, file.length) : file;
        if (Utf8.isValid(body, 0, body.length)) {
            return Optional.of(new Text(withoutCarriageReturns(body), Encoding.UTF_8));
        }
        byte[] latin = new String(file, StandardCharsets.ISO_8859_1).getBytes(StandardCharsets.UTF_8);
        return Optional.of(new Text(withoutCarriageReturns(latin), Encoding.LATIN_1));
    }

    private static boolean startsWith(byte[] file, int... mark) {
        if (file.length < mark.length) {
            return false;
        }
        for (int i = 0; i < mark.length; i++) {
            if ((file[i] & 0xFF) != mark[i]) {
                return false;
            }
        }
        return true;
    }

    private static Optional<byte[]> utf16(byte[] file, Charset charset) {
        if (startsWith(file, 0xFF, 0xFE, 0, 0)) {
            return Optional.empty(); // UTF-32, which nobody writes source in
        }
        try {
            CharBuffer text = charset.newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(file, 2, file.length - 2));
            return Optional.of(text.toString().getBytes(StandardCharsets.UTF_8));
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }

    private static byte[] withoutCarriageReturns(byte[] text) {
        int first = 0;
        while (first < text.length - 1 && !(text[first] == '\r' && text[first + 1] == '\n')) {
            first++;
        }
        if (first >= text.length - 1) {
            return text;
        }
        byte[] out = new byte[text.length];
        int length = 0;
        for (int i = 0; i < text.length; i++) {
            if (text[i] != '\r' || i + 1 == text.length || text[i + 1] != '\n') {
                out[length++] = text[i];
            }
        }
        return Arrays.copyOf(out, length);
    }
}
