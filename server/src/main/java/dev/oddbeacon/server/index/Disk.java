package dev.oddbeacon.server.index;

import dev.oddbeacon.git.DiskFullException;
import dev.oddbeacon.server.Settings;
import java.io.File;
import java.time.Duration;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * The room on the disk of the data folder. Nothing is begun while there is less than a set amount, and for a while after
 * a job has met a full disk: what it had written is gone again then, so that the room alone does not tell.
 */
@Component
public class Disk {
    private static final Duration FIRST_PAUSE = Duration.ofSeconds(5);
    private static final int MOST_DOUBLINGS = 7; // 10 min

    private final File folder;
    private final long least;
    private int failures; // since a job found room; guarded by this
    private long resumes; // System.nanoTime(), while there are failures; guarded by this

    Disk(Settings settings) {
        this.folder = settings.data().toFile();
        this.least = settings.freeDisk().toBytes();
    }

    /** Why nothing is indexed now; empty if there is room. */
    public Optional<String> problem() {
        long free = folder.getUsableSpace();
        if (free < least) {
            return Optional.of("Indexing pauses: only " + (free >> 20) + " MiB are free where the index lies, and "
                    + (least >> 20) + " MiB are kept free. It goes on by itself when there is room.");
        }
        return pausesFor()
                .map(pause -> "Indexing pauses: a job found the disk full where the index lies; " + (free >> 20)
                        + " MiB are free now. It is tried again in " + (pause.toSeconds() + 1) + " s.");
    }

    private synchronized Optional<Duration> pausesFor() {
        long pause = resumes - System.nanoTime();
        return failures > 0 && pause > 0 ? Optional.of(Duration.ofNanos(pause)) : Optional.empty();
    }

    /** A job found the disk full: the next begins after a pause, which doubles each time. */
    synchronized void wasFull() {
        resumes = System.nanoTime() + (FIRST_PAUSE.toNanos() << Math.min(failures, MOST_DOUBLINGS));
        failures++;
    }

    /** A job found room for all that it had to write. */
    synchronized void hadRoom() {
        failures = 0;
    }

    /** Whether something failed because the disk is full. */
    static boolean isFull(Throwable failure) {
        for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
            if (cause instanceof DiskFullException
                    || cause.getMessage() != null && DiskFullException.isTold(cause.getMessage())) {
                return true;
            }
        }
        return false;
    }
}
