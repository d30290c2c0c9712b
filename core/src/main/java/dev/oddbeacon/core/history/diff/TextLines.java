package dev.oddbeacon.core.history.diff;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** The lines of a file, as bytes: each ends at a line feed, which belongs to it; the last one may lack it. */
public final class TextLines {
    public static final TextLines NONE = new TextLines(new byte[0]);
    /** A NUL among so many first bytes makes a file binary, as it does for Git. */
    private static final int LOOKED_AT = 8_000;

    private final byte[] bytes;
    private final int[] starts; // and the end of the last

    public TextLines(byte[] bytes) {
        this.bytes = bytes;
        int[] found = new int[Math.max(16, bytes.length / 24)];
        int count = 0;
        for (int at = 0; at < bytes.length; ) {
            if (count + 1 >= found.length) {
                found = Arrays.copyOf(found, found.length * 2);
            }
            found[count++] = at;
            while (at < bytes.length && bytes[at] != '\n') {
                at++;
            }
            at++;
        }
        found[count] = bytes.length;
        this.starts = Arrays.copyOf(found, count + 1);
    }

    public static boolean isBinary(byte[] bytes) {
        for (int i = 0; i < Math.min(LOOKED_AT, bytes.length); i++) {
            if (bytes[i] == 0) {
                return true;
            }
        }
        return false;
    }

    /** Two ways of comparing lines. */
    public enum Sameness {
        EXACT {
            @Override
            boolean same(TextLines a, int i, TextLines b, int k) {
                return Arrays.equals(a.bytes, a.starts[i], a.starts[i + 1], b.bytes, b.starts[k], b.starts[k + 1]);
            }

            @Override
            int hash(TextLines lines, int line) {
                int hash = 1;
                for (int i = lines.starts[line]; i < lines.starts[line + 1]; i++) {
                    hash = hash * 31 + lines.bytes[i];
                }
                return hash;
            }
        },
        /** White space counts nowhere. */
        WITHOUT_SPACE {
            @Override
            boolean same(TextLines a, int i, TextLines b, int k) {
                int at = a.starts[i];
                int other = b.starts[k];
                while (true) {
                    while (at < a.starts[i + 1] && isSpace(a.bytes[at])) {
                        at++;
                    }
                    while (other < b.starts[k + 1] && isSpace(b.bytes[other])) {
                        other++;
                    }
                    if (at == a.starts[i + 1] || other == b.starts[k + 1]) {
                        return at == a.starts[i + 1] && other == b.starts[k + 1];
                    }
                    if (a.bytes[at++] != b.bytes[other++]) {
                        return false;
                    }
                }
            }

            @Override
            int hash(TextLines lines, int line) {
                int hash = 1;
                for (int i = lines.starts[line]; i < lines.starts[line + 1]; i++) {
                    hash = isSpace(lines.bytes[i]) ? hash : hash * 31 + lines.bytes[i];
                }
                return hash;
            }
        };

        abstract boolean same(TextLines a, int i, TextLines b, int k);

        abstract int hash(TextLines lines, int line);

        private static boolean isSpace(byte c) {
            return c == ' ' || c >= '\t' && c <= '\r';
        }
    }

    public int count() {
        return starts.length - 1;
    }

    /** Start offset of a line; the count is allowed. */
    public int start(int line) {
        return starts[line];
    }

    public byte[] bytes() {
        return bytes;
    }

    /** Columns of white space at the beginning of a line; -1 for a blank one. */
    int indent(int line) {
        int columns = 0;
        for (int i = starts[line]; i < starts[line + 1]; i++) {
            if (bytes[i] == '\t') {
                columns += 8 - columns % 8;
            } else if (bytes[i] == ' ') {
                columns++;
            } else if (bytes[i] != '\n' && bytes[i] != '\r') {
                return columns;
            }
        }
        return -1;
    }

    /** Bytes without the line feed and a carriage return before it. */
    public int textEnd(int line) {
        int end = starts[line + 1];
        end -= end > starts[line] && bytes[end - 1] == '\n' ? 1 : 0;
        return end - (end < starts[line + 1] && end > starts[line] && bytes[end - 1] == '\r' ? 1 : 0);
    }

    /** The text of a line, without its end: UTF-8, or Latin-1 where it is not. */
    public String text(int line) {
        return Encodings.string(bytes, starts[line], textEnd(line));
    }

    @Override
    public String toString() {
        return new String(bytes, StandardCharsets.UTF_8);
    }
}
