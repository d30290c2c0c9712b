package dev.oddbeacon.core.history.diff;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.text.Coded;
import java.util.Locale;

/**
 * What a commit did to a file, compared with its first parent.
 *
 * @param from the path before; the same but for a renamed file
 * @param before the blob before; zeros if there was none
 * @param after the blob after; zeros if there is none
 * @param modeBefore the mode of the file before, as Git has it: 0100644 (octal) for most; 0 if there was none
 * @param modeAfter the same after
 */
public record PathChange(
        String path, String from, Kind kind, ObjectId before, ObjectId after, int modeBefore, int modeAfter) {
    public static final int FILE = 0100644;
    private static final int KIND = 0170000;
    private static final int SUBMODULE = 0160000;

    /** Whether its content can be compared: not of a submodule. */
    public boolean isFile() {
        return (modeBefore & KIND) != SUBMODULE && (modeAfter & KIND) != SUBMODULE;
    }

    public enum Kind implements Coded {
        ADDED(0),
        MODIFIED(1),
        DELETED(2),
        RENAMED(3);

        private static final Kind[] BY_CODE = Coded.byCode(values());

        private final int code;

        Kind(int code) {
            this.code = code;
        }

        @Override
        public int code() {
            return code;
        }

        public static Kind of(int code) {
            return BY_CODE[code];
        }

        public String label() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public static final ObjectId NOTHING = new ObjectId(0, 0, 0);
}
