package dev.oddbeacon.client.worktree;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/**
 * An index of a few files of a work tree, as the service would make it: what is not indexed yet is found by the same
 * searches. It lies in a temporary folder, which goes with it.
 */
public final class LocalIndex implements AutoCloseable {
    private static final SearchPool POOL = new SearchPool(1);
    private static final Duration LONGEST = Duration.ofSeconds(10);
    private static final long LARGEST_FILE = 32L << 20;

    /** Folders that are in use: an end of the process removes them too. */
    private static final Set<Path> FOLDERS = ConcurrentHashMap.newKeySet();

    static {
        Runtime.getRuntime().addShutdownHook(new Thread(() -> FOLDERS.forEach(LocalIndex::remove)));
    }

    private final Path folder;
    private final Exclusions exclusions;
    private final View view;

    private LocalIndex(Path folder, Exclusions exclusions, View view) {
        this.folder = folder;
        this.exclusions = exclusions;
        this.view = view;
    }

    /**
     * Indexes files.
     *
     * @param files by their paths from the root of the repository
     */
    public static LocalIndex of(String repository, String branch, Map<String, byte[]> files) {
        return of(
                new Branch(repository, Set.of(), branch, "0".repeat(40), Instant.now(), true), files, Exclusions.NONE);
    }

    /**
     * Indexes files of a branch.
     *
     * @param exclusions that searches may name
     */
    static LocalIndex of(Branch branch, Map<String, byte[]> files, Exclusions exclusions) {
        Path folder = null;
        try {
            folder = Files.createTempDirectory("oddbeacon-changed-");
            FOLDERS.add(folder);
            View none = ViewBuilder.empty();
            Ingest.Ingested done = new Ingest(NewFiles.in(folder), LARGEST_FILE, 1, "")
                    .run(new WorkFiles(files), none, new IngestProgress(), () -> false);
            return new LocalIndex(
                    folder,
                    exclusions,
                    ViewBuilder.next(none, done.segments(), List.of(new ViewBuilder.Wanted(branch, done.snapshot()))));
        } catch (IOException e) {
            if (folder != null) {
                remove(folder);
            }
            throw new UncheckedIOException("The files that changed could not be read: " + e.getMessage(), e);
        }
    }

    /** The only branch of it is number 0. */
    public View view() {
        return view;
    }

    /** The number of a file; empty if it is not among them. */
    public OptionalInt file(String path) {
        return view.snapshot(0).find(path);
    }

    public String path(int file) {
        return view.snapshot(0).path(file);
    }

    /** What searches run in. */
    public SearchContext context() {
        return new SearchContext(view, exclusions, Instant.now(), new Budget(LONGEST), POOL, () -> {});
    }

    @Override
    public void close() {
        view.release();
        remove(folder);
    }

    private static void remove(Path folder) {
        try (Stream<Path> files = Files.list(folder)) {
            files.forEach(file -> file.toFile().delete());
        } catch (IOException e) {
            // it lies in the folder for temporary files, which the system empties
        }
        folder.toFile().delete();
        FOLDERS.remove(folder);
    }
}
