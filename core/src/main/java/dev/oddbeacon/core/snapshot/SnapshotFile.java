package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.segment.ObjectId;
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
public record SnapshotFile(String path, ObjectId id, Standing standing, long bytes, int lines, String type, int traits) {
    public SnapshotFile {
        Objects.requireNonNull(path);
        Objects.requireNonNull(standing);
        Objects.requireNonNull(type);
    }

    /** Whether a file's text is searched, or why it is skipped. The order is that of the file format. */
    public enum Standing {
        SEARCHED(""),
        BINARY("binary"),
        TOO_LARGE("too large"),
        SUBMODULE("a submodule: another repository, register that one"),
        LINK("a link: the file it points to is searched under its own path"),
        UNREADABLE("its content could not be read from the repository");

        private final String reason;

        Standing(String reason) {
            this.reason = reason;
        }

        /** Why it is skipped, in words; empty if it is searched. */
        public String reason() {
            return reason;
        }
    }
}
