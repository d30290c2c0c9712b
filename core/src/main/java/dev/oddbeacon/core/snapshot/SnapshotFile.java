package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.text.Coded;
import java.util.Objects;

/**
 * A file of a snapshot.
 *
 * @param path from the repository's root, with slashes
 * @param id of its blob; of the commit for a submodule
 * @param standing whether its text is searched, and if not, why
 * @param bytes its size
 * @param lines its lines; 0 if its text is not searched
 * @param type the language or format it is written in
 * @param traits the roles that it plays, as {@link dev.oddbeacon.core.source.Traits#mask} has them
 */
public record SnapshotFile(
        String path, ObjectId id, Standing standing, long bytes, int lines, String type, int traits) {
    public SnapshotFile {
        Objects.requireNonNull(path);
        Objects.requireNonNull(standing);
        Objects.requireNonNull(type);
    }

    /** Whether a file's text is searched, or why it is skipped. */
    public enum Standing implements Coded {
        SEARCHED(0, ""),
        BINARY(1, "binary"),
        TOO_LARGE(2, "too large"),
        SUBMODULE(3, "a submodule: another repository, register that one"),
        LINK(4, "a link: the file it points to is searched under its own path"),
        UNREADABLE(5, "its content could not be read from the repository"),
        UNREAD(6, "not read yet: the repository is being indexed");

        private static final Standing[] BY_CODE = Coded.byCode(values());

        private final int code;
        private final String reason;

        Standing(int code, String reason) {
            this.code = code;
            this.reason = reason;
        }

        @Override
        public int code() {
            return code;
        }

        static Standing of(int code) {
            return BY_CODE[code];
        }

        /** Why it is skipped, in words; empty if it is searched. */
        public String reason() {
            return reason;
        }
    }
}
