package dev.oddbeacon.core.snapshot;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * An open file of the index that several views use. It is unmapped when the last of them has let go, and then
 * deleted if it was given up meanwhile.
 */
final class SharedFile<T extends AutoCloseable> {
    private final Path path;
    private final T reader;
    private int users = 1;
    private long wantedBy; // the latest view that has it; of the thread that makes views
    private boolean givenUp;

    SharedFile(Path path, T reader) {
        this.path = path;
        this.reader = reader;
    }

    Path path() {
        return path;
    }

    T reader() {
        return reader;
    }

    synchronized SharedFile<T> retain() {
        users++;
        return this;
    }

    synchronized void release() {
        if (--users > 0) {
            return;
        }
        try {
            reader.close();
            if (givenUp) {
                Files.deleteIfExists(path);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    /** Marks that a view has it. */
    void wantedBy(View view) {
        wantedBy = view.number();
    }

    boolean isWantedBy(View view) {
        return wantedBy == view.number();
    }

    /** Marks that no new view will use the file. */
    synchronized void giveUp() {
        givenUp = true;
    }
}
