package dev.oddbeacon.core.replace;

import dev.oddbeacon.core.text.TextDecoder;
import dev.oddbeacon.core.text.TextDecoder.Encoding;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/**
 * The text of a file as searches see it, with the way back to its bytes: its encoding, its byte order mark, and a CR before
 * each line feed that had one. What is not edited comes out byte by byte as it was.
 */
public final class EncodedText {
    private final byte[] mark;
    private final Charset charset;
    private final String raw; // with its carriage returns
    private final String text;
    private final int[] returns; // where CR were left out: offsets in the text, ascending

    private EncodedText(byte[] mark, Charset charset, String raw) {
        this.mark = mark;
        this.charset = charset;
        this.raw = raw;
        StringBuilder without = new StringBuilder(raw.length());
        int[] left = new int[raw.length()];
        int count = 0;
        for (int i = 0; i < raw.length(); i++) {
            if (raw.charAt(i) == '\r' && i + 1 < raw.length() && raw.charAt(i + 1) == '\n') {
                left[count++] = without.length();
            } else {
                without.append(raw.charAt(i));
            }
        }
        this.text = without.toString();
        this.returns = java.util.Arrays.copyOf(left, count);
    }

    /** An edit of the text: from start to before end, in UTF-16 units. */
    public record Edit(int start, int end, String with) {}

    /** Empty for a file that has no text. */
    public static Optional<EncodedText> of(byte[] file) {
        return TextDecoder.decode(file).map(decoded -> {
            Charset charset = charset(decoded.encoding());
            int markLength = switch (decoded.encoding()) {
                case UTF_16LE, UTF_16BE -> 2;
                case UTF_8 -> startsWithMark(file) ? 3 : 0;
                case LATIN_1 -> 0;
            };
            String raw = new String(file, markLength, file.length - markLength, charset);
            return new EncodedText(java.util.Arrays.copyOf(file, markLength), charset, raw);
        });
    }

    private static Charset charset(Encoding encoding) {
        return switch (encoding) {
            case UTF_8 -> StandardCharsets.UTF_8;
            case UTF_16LE -> StandardCharsets.UTF_16LE;
            case UTF_16BE -> StandardCharsets.UTF_16BE;
            case LATIN_1 -> StandardCharsets.ISO_8859_1;
        };
    }

    private static boolean startsWithMark(byte[] file) {
        return file.length >= 3 && file[0] == (byte) 0xEF && file[1] == (byte) 0xBB && file[2] == (byte) 0xBF;
    }

    /** As searches see it. */
    public String text() {
        return text;
    }

    /** The name of its encoding, as IANA has it. */
    public String encoding() {
        return charset.name();
    }

    /**
     * The bytes of the file after some edits. A line feed of an edit becomes CRLF if the line it comes into ends so.
     *
     * @param edits ascending, none over another
     * @return empty if the encoding has no character for a part of an edit
     */
    public Optional<byte[]> after(List<Edit> edits) {
        StringBuilder out = new StringBuilder(raw.length());
        int from = 0; // in raw
        int passed = 0; // carriage returns
        for (Edit edit : edits) {
            while (passed < returns.length && returns[passed] < edit.start) {
                passed++;
            }
            int start = edit.start + passed;
            while (passed < returns.length && returns[passed] < edit.end) {
                passed++;
            }
            out.append(raw, from, start);
            out.append(
                    endsWithReturn(edit.start) ? edit.with.replace("\r\n", "\n").replace("\n", "\r\n") : edit.with);
            from = edit.end + passed;
        }
        out.append(raw, from, raw.length());
        try {
            ByteBuffer encoded = charset.newEncoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .encode(CharBuffer.wrap(out));
            byte[] bytes = new byte[mark.length + encoded.remaining()];
            System.arraycopy(mark, 0, bytes, 0, mark.length);
            encoded.get(bytes, mark.length, encoded.remaining());
            return Optional.of(bytes);
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }

    /** Whether the line that holds an offset ends with CRLF; of the last line without an end, whether the one before does. */
    private boolean endsWithReturn(int offset) {
        int feed = text.indexOf('\n', offset);
        if (feed < 0) {
            feed = text.lastIndexOf('\n', offset);
        }
        return feed >= 0 && java.util.Arrays.binarySearch(returns, feed) >= 0;
    }
}
