package dev.oddbeacon.core.history;

import dev.oddbeacon.core.segment.ObjectId;
import java.util.Locale;

/**
 * What a commit did to a file, compared with its first parent.
 *
 * @param from the path before; the same but for a renamed file
 * @param before the blob before; zeros if there was none
 * @param after the blob after; zeros if there is none
 * @param isFile whether both are files, not links or submodules
 */
public record PathChange(String path, String from, Kind kind, ObjectId before, ObjectId after, boolean isFile) {
    public enum Kind {
        ADDED, MODIFIED, DELETED, RENAMED;

        private static final Kind[] ALL = values();

        static Kind at(int number) {
            return ALL[number];
        }

        public String label() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public static final ObjectId NOTHING = new ObjectId(0, 0, 0);
}
