package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Settings;
import java.io.File;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The room on the disk of the data folder. */
@Component
public class Disk {
    private final File folder;
    private final long least;

    Disk(Settings settings) {
        this.folder = settings.data().toFile();
        this.least = settings.freeDisk().toBytes();
    }

    /** Why nothing is indexed now; empty if there is room. */
    public Optional<String> problem() {
        long free = folder.getUsableSpace();
        return free >= least
                ? Optional.empty()
                : Optional.of("Indexing pauses: only " + (free >> 20) + " MiB are free where the index lies, and "
                        + (least >> 20) + " MiB are kept free. It goes on by itself when there is room.");
    }

    /** Whether something failed because the disk is full. */
    static boolean isFull(Throwable failure) {
        for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
            String message = Optional.ofNullable(cause.getMessage()).orElse("").toLowerCase(Locale.ROOT);
            if (message.contains("no space left") || message.contains("disk quota exceeded")) {
                return true;
            }
        }
        return false;
    }
}
