package dev.oddbeacon.git;

import java.io.IOException;

/** A blob has more bytes than are read. */
public final class BlobTooLargeException extends IOException {
    BlobTooLargeException(String message) {
        super(message);
    }
}
