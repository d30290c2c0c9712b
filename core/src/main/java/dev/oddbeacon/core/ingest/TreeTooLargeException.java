package dev.oddbeacon.core.ingest;

import java.io.IOException;

/** A tree has more files, or lies deeper, than is indexed. */
public final class TreeTooLargeException extends IOException {
    /** @param message what there is too much of, and how much is taken */
    public TreeTooLargeException(String message) {
        super(message);
    }
}
