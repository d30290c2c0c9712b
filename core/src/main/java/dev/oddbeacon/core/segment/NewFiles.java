package dev.oddbeacon.core.segment;

import java.nio.file.Path;
import java.util.Optional;
import java.util.UUID;

/**
 * Names of files of the index that are about to be written: each once, with whoever writes it, so that what is left of
 * one that was killed can be told from what another is writing.
 *
 * @param owner a number of the writer; 0 for nobody in particular
 */
public record NewFiles(Path folder, long owner) {
    private static final char MARK = 'p';

    public static NewFiles in(Path folder) {
        return new NewFiles(folder, 0);
    }

    /** @param kind the suffix */
    public Path next(String kind) {
        return folder.resolve("" + MARK + owner + "-" + UUID.randomUUID() + "." + kind);
    }

    /** Who writes, or has written, a file. */
    public static Optional<Long> ownerOf(Path file) {
        String name = file.getFileName().toString();
        int end = name.indexOf('-');
        if (end < 2 || name.charAt(0) != MARK) {
            return Optional.empty();
        }
        try {
            return Optional.of(Long.parseLong(name, 1, end, 10));
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }
}
