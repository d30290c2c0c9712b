package dev.oddbeacon.git;

import java.io.IOException;
import java.util.List;
import java.util.Locale;

/** There is no room on the disk for what Git wants to write: no fault of the repository, and it may pass. */
public final class DiskFullException extends IOException {
    private static final List<String> SIGNS = List.of("no space left", "disk quota exceeded", "out of diskspace");

    DiskFullException(String message) {
        super(message);
    }

    /** Whether an error message, of Git or of the operating system, is about a full disk. */
    public static boolean isTold(String message) {
        String lower = message.toLowerCase(Locale.ROOT);
        return SIGNS.stream().anyMatch(lower::contains);
    }
}
