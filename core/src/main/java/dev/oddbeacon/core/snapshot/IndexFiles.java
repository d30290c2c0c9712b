package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.segment.SegmentReader;
import java.io.IOException;
import java.nio.file.Path;

/** Files of the index, of whatever kind: the suffix tells it. */
public final class IndexFiles {
    private IndexFiles() {}

    /**
     * Whether a file can be opened: it is there, whole, and of a format that is known. Its content is not looked at.
     *
     * @throws IOException if not
     */
    public static void open(Path file) throws IOException {
        read(file, false);
    }

    /**
     * Holds all of a file against its checksums.
     *
     * @throws IOException if it is not as it was written
     */
    public static void verify(Path file) throws IOException {
        read(file, true);
    }

    private static void read(Path file, boolean verifies) throws IOException {
        String name = file.getFileName().toString();
        switch (name.substring(name.lastIndexOf('.') + 1)) {
            case "segment" -> {
                try (SegmentReader reader = new SegmentReader(file)) {
                    if (verifies) {
                        reader.verify();
                    }
                }
            }
            case "history" -> {
                try (HistoryReader reader = new HistoryReader(file)) {
                    if (verifies) {
                        reader.verify();
                    }
                }
            }
            case "snapshot" -> {
                try (SnapshotReader reader = new SnapshotReader(file)) {
                    if (verifies) {
                        reader.verify();
                    }
                }
            }
            default -> throw new IOException(file + " is no file of the index.");
        }
    }
}
