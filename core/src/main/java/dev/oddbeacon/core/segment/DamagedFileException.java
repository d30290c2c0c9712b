package dev.oddbeacon.core.segment;

import java.io.IOException;
import java.nio.file.Path;

/** A file of the index is not as it was written. It can be rebuilt from the repositories. */
public final class DamagedFileException extends IOException {
    private static final long serialVersionUID = 1;

    private final String how;
    private final boolean isOfAnotherFormat;

    public DamagedFileException(Path file, String how) {
        this(file, how, false);
    }

    private DamagedFileException(Path file, String how, boolean isOfAnotherFormat) {
        super("The index file " + file.getFileName() + " cannot be used: " + how + ".");
        this.how = how;
        this.isOfAnotherFormat = isOfAnotherFormat;
    }

    /** A file that another version of the program wrote. @param found of its format, as {@code read} is of this program's */
    static DamagedFileException ofAnotherFormat(Path file, String found, String read) {
        return new DamagedFileException(
                file, "it is of version " + found + " of its format, and this program reads " + read, true);
    }

    /** The same of a file that has another name until it is known to be whole. */
    public DamagedFileException named(Path file) {
        return new DamagedFileException(file, how, isOfAnotherFormat);
    }

    /** Whether it is whole, but of a version of its format that this program does not read. */
    public boolean isOfAnotherFormat() {
        return isOfAnotherFormat;
    }
}
