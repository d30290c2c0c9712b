package dev.oddbeacon.core.segment;

import java.io.IOException;
import java.nio.file.Path;

/** A file of the index is not as it was written. It can be rebuilt from the repositories. */
public final class DamagedFileException extends IOException {
    private static final long serialVersionUID = 1;

    public DamagedFileException(Path file, String how) {
        super("The index file " + file.getFileName() + " cannot be used: " + how + ".");
    }
}
