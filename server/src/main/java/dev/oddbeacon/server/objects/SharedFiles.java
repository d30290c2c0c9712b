package dev.oddbeacon.server.objects;

import dev.oddbeacon.core.segment.DamagedFileException;
import dev.oddbeacon.core.snapshot.IndexFiles;
import dev.oddbeacon.server.Settings;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Files of the index that machines share through a store: those that are written here go there before the records name
 * them, and those that others have written are brought here before a view has them. With one machine there is no store,
 * and nothing of this happens.
 */
@Component
public class SharedFiles {
    private static final Logger LOG = LoggerFactory.getLogger(SharedFiles.class);
    private static final int AT_A_TIME = 4;

    private final Optional<ObjectStore> store;
    private final Path folder;
    private final ExecutorService threads = Executors.newFixedThreadPool(
            AT_A_TIME, Thread.ofPlatform().daemon().name("objects-", 1).factory());
    private final Set<String> missing = ConcurrentHashMap.newKeySet(); // files that are being brought
    private final AtomicLong brought = new AtomicLong(); // bytes
    private volatile Optional<String> problem = Optional.empty();

    SharedFiles(Optional<ObjectStore> store, Settings settings) {
        this.store = store;
        this.folder = settings.indexFolder();
    }

    /** The store; empty with one machine. */
    public Optional<ObjectStore> store() {
        return store;
    }

    /** Why the store did not do its work when it was asked last; empty if it did. */
    public Optional<String> problem() {
        return problem;
    }

    /** The store was asked something. @param reason empty if it did its work */
    public void asked(Optional<String> reason) {
        problem = reason;
    }

    /** How many files are wanted here and not here yet. */
    public int missing() {
        return missing.size();
    }

    /** How much was brought here since the start, in bytes. */
    public long brought() {
        return brought.get();
    }

    /**
     * Puts files that were written here into the store.
     *
     * @throws StoreUnreachableException if they cannot be: nothing may name them
     */
    public void keep(Collection<Path> files) {
        store.ifPresent(objects -> all(objects, files, objects::put));
    }

    /**
     * Brings files that are not here. What the store does not have either stays absent, and is told by whoever opens it.
     *
     * @throws StoreUnreachableException if they cannot be brought now
     * @throws DamagedFileException if all were brought but some, which cannot be used as the store has them
     */
    public void bring(Collection<Path> files) throws DamagedFileException {
        if (store.isEmpty()) {
            return;
        }
        List<Path> absent = files.stream().filter(file -> !Files.exists(file)).toList();
        absent.forEach(file -> missing.add(file.getFileName().toString()));
        Queue<DamagedFileException> damaged = new ConcurrentLinkedQueue<>();
        try {
            all(store.get(), absent, file -> bring(store.get(), file, damaged));
        } finally {
            absent.forEach(file -> missing.remove(file.getFileName().toString()));
        }
        if (!damaged.isEmpty()) {
            asked(Optional.of(damaged.element().getMessage()));
            throw damaged.element();
        }
    }

    /** Brings files anew that are here and cannot be read. */
    public void replace(Collection<Path> files) throws IOException {
        if (store.isPresent()) {
            for (Path file : files) {
                Files.deleteIfExists(file);
            }
            bring(files);
        }
    }

    private void bring(ObjectStore objects, Path file, Queue<DamagedFileException> damaged) throws IOException {
        String name = file.getFileName().toString();
        Path unfinished = folder.resolve(UUID.randomUUID() + "-" + name); // of the same kind
        try {
            objects.fetch(name, unfinished);
            IndexFiles.verify(unfinished);
            brought.addAndGet(Files.size(unfinished));
            Files.move(unfinished, file, StandardCopyOption.ATOMIC_MOVE);
        } catch (NoSuchFileException e) {
            LOG.debug("{} is not in the store", name);
        } catch (DamagedFileException e) {
            damaged.add(e.named(file));
        } finally {
            Files.deleteIfExists(unfinished);
        }
    }

    private interface Work {
        void of(Path file) throws IOException;
    }

    /** Does something with each file, several at a time. */
    private void all(ObjectStore objects, Collection<Path> files, Work work) {
        List<Future<?>> begun = new ArrayList<>();
        for (Path file : files) {
            begun.add(threads.submit(() -> {
                work.of(file);
                return null;
            }));
        }
        try {
            for (Future<?> one : begun) {
                one.get();
            }
            if (!begun.isEmpty()) {
                asked(Optional.empty());
            }
        } catch (ExecutionException e) {
            begun.forEach(one -> one.cancel(false));
            switch (e.getCause()) {
                case IOException reason -> {
                    StoreUnreachableException told = new StoreUnreachableException(objects, reason);
                    asked(Optional.of(told.getMessage()));
                    throw told;
                }
                case RuntimeException reason -> throw reason;
                default -> throw new IllegalStateException(e.getCause());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("the service stops");
        }
    }

    @PreDestroy
    void close() {
        threads.shutdownNow();
    }
}
