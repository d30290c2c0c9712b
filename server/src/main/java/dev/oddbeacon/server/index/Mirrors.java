package dev.oddbeacon.server.index;

import dev.oddbeacon.git.MirrorFolder;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.RepositoryRecord;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * The mirrors of repositories, which requests read while one may be put in the place of another.
 *
 * <p>Concurrency: each reader holds a permit of the repository's semaphore until it is closed, on whatever thread; who
 * replaces a mirror waits for all permits, for a while, and holds them for the moment that it takes. Readers do not queue
 * behind whoever waits so: one request may open two.
 */
@Component
public class Mirrors {
    private static final int MOST_READERS = 1_000;
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(30);

    private final Settings settings;
    private final Map<Long, Semaphore> readers = new ConcurrentHashMap<>();

    Mirrors(Settings settings) {
        this.settings = settings;
    }

    /** Whether a repository was fetched yet; of one whose mirror is being replaced, once it is. */
    public boolean has(long repositoryId) {
        Semaphore permits = permits(repositoryId);
        permits.acquireUninterruptibly();
        try {
            return Files.exists(settings.mirror(repositoryId));
        } finally {
            permits.release();
        }
    }

    /** Whether a repository was fetched, and with it all commits of which something is indexed. */
    boolean holdsIndexed(RepositoryRecord repository) {
        if (!has(repository.id())) {
            return false;
        }
        try (MirrorReader reader = reader(repository.id())) {
            for (BranchRecord branch : repository.branches()) {
                if (reader.commit(branch.commitId()).isEmpty()) {
                    return false;
                }
            }
            return true;
        } catch (IOException e) {
            return false;
        }
    }

    /** Reads the mirror of a repository, which stays as it is until the reader is closed. */
    public MirrorReader reader(long repositoryId) throws IOException {
        Semaphore permits = permits(repositoryId);
        permits.acquireUninterruptibly();
        try {
            return new MirrorReader(
                    settings.mirror(repositoryId), settings.largestFile().toBytes(), permits::release);
        } catch (IOException | RuntimeException e) {
            permits.release();
            throw e;
        }
    }

    /** Puts another folder in the place of a mirror. */
    void replace(long repositoryId, Path fresh) throws IOException {
        Path folder = settings.mirror(repositoryId);
        Semaphore permits = permits(repositoryId);
        boolean held = false;
        try {
            held = permits.tryAcquire(MOST_READERS, LONGEST_WAIT.toMillis(), TimeUnit.MILLISECONDS);
            MirrorFolder.delete(folder);
            Files.move(fresh, folder);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        } finally {
            if (held) {
                permits.release(MOST_READERS);
            }
        }
    }

    private Semaphore permits(long repositoryId) {
        return readers.computeIfAbsent(repositoryId, _ -> new Semaphore(MOST_READERS));
    }
}
