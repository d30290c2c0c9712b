package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.text.CaseFolding;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * The names of the files of a snapshot without their folders, and how deep in folders each stands: what is asked of
 * many files in one search. In memory: some twenty bytes a file.
 */
public final class FileNames {
    /** How a name is told by a text. */
    public enum Match {
        NONE,
        /** It holds the text. */
        HOLDS,
        /** It is the text, but for what follows the first full stop. */
        IS
    }

    private static final int DEEPEST = 255;

    private final byte[] names; // folded, one after the other
    private final int[] starts; // by file; one more for the end
    private final byte[] depths;

    private FileNames(byte[] names, int[] starts, byte[] depths) {
        this.names = names;
        this.starts = starts;
        this.depths = depths;
    }

    static FileNames of(SnapshotReader snapshot) {
        int count = snapshot.count();
        int[] starts = new int[count + 1];
        byte[] depths = new byte[count];
        Growing all = new Growing(count * 16);
        snapshot.forEachPathBytes((path, length, file) -> {
            int depth = 0;
            int start = 0;
            boolean ascii = true;
            for (int i = 0; i < length; i++) {
                if (path[i] == '/') {
                    depth++;
                    start = i + 1;
                    ascii = true;
                }
                ascii &= path[i] >= 0;
            }
            depths[file] = (byte) Math.min(DEEPEST, depth);
            starts[file] = all.size;
            all.add(path, start, length, ascii);
        });
        starts[count] = all.size;
        return new FileNames(Arrays.copyOf(all.bytes, all.size), starts, depths);
    }

    /** How many folders a file stands in, at most 255. */
    public int depth(int file) {
        return Byte.toUnsignedInt(depths[file]);
    }

    /** @param folded a text as {@link CaseFolding} has it, in UTF-8, not empty */
    public Match match(int file, byte[] folded) {
        int end = starts[file + 1];
        for (int at = starts[file]; at <= end - folded.length; at++) {
            if (names[at] == folded[0] && Arrays.equals(names, at, at + folded.length, folded, 0, folded.length)) {
                int after = at + folded.length;
                boolean isWhole = at == starts[file] && (after == end || names[after] == '.');
                return isWhole ? Match.IS : Match.HOLDS;
            }
        }
        return Match.NONE;
    }

    /**
     * The same for a text of several words, whatever separates words in the name: {@code MooringBuffer.java} and {@code
     * mooring-buffer.md} are {@code mooringbuffer}.
     *
     * @param letters of the words, folded, in UTF-8, not empty
     */
    public Match matchWords(int file, byte[] letters) {
        int end = starts[file];
        while (end < starts[file + 1] && names[end] != '.') {
            end++;
        }
        Match match = Match.NONE;
        for (int start = starts[file]; start < end && match == Match.NONE; start++) {
            if (names[start] != letters[0]) {
                continue;
            }
            int at = start;
            int found = 0;
            for (; at < end && found < letters.length; at++) {
                if (names[at] == letters[found]) {
                    found++;
                } else if (!isSeparator(names[at])) {
                    break;
                }
            }
            if (found == letters.length) {
                match = start == starts[file] && at == end ? Match.IS : Match.HOLDS;
            }
        }
        return match;
    }

    private static boolean isSeparator(byte value) {
        return value == '-' || value == '_' || value == ' ';
    }

    private static final class Growing {
        private byte[] bytes;
        private int size;

        Growing(int expected) {
            bytes = new byte[expected + 16];
        }

        void add(byte[] path, int start, int end, boolean ascii) {
            if (!ascii) {
                int[] folded = CaseFolding.fold(new String(path, start, end - start, StandardCharsets.UTF_8));
                byte[] name = new String(folded, 0, folded.length).getBytes(StandardCharsets.UTF_8);
                reserve(name.length);
                System.arraycopy(name, 0, bytes, size, name.length);
                size += name.length;
                return;
            }
            reserve(end - start);
            for (int i = start; i < end; i++) {
                byte value = path[i];
                bytes[size++] = value >= 'A' && value <= 'Z' ? (byte) (value | 0x20) : value;
            }
        }

        private void reserve(int more) {
            if (size + more > bytes.length) {
                bytes = Arrays.copyOf(bytes, Math.max(size + more, bytes.length * 2));
            }
        }
    }
}
