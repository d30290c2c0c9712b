package dev.oddbeacon.server.index;

import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.processes.Processes;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Makes the view that the records describe the current one.
 *
 * <p>Concurrency: one thread reads the manifest, makes views and swaps them. Who asks waits until a view is current
 * whose manifest was read after asking; several that ask meanwhile get the same one.
 */
@Component
public class Publisher {
    private static final int MOST_TRIES = 5;
    private static final int RESTS = 4; // times what a view took
    private static final Duration LONGEST_REST = Duration.ofMillis(300);

    private final Manifest.Reader manifests;
    private final CurrentView current;
    private final Processes processes;
    private final SharedFiles shared;
    private final ExecutorService thread = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().daemon().name("publisher").factory());
    private Asked next = new Asked(); // not begun; guarded by this
    private Manifest manifest = Manifest.EMPTY; // of the current view; used by the thread alone

    /** What is to be published: everything, or these repositories. */
    private static final class Asked {
        private final CompletableFuture<Void> done = new CompletableFuture<>();
        private final Set<Long> changed = new HashSet<>();
        private boolean everything;
        private boolean isQueued;
        private boolean isFailed; // the one before
    }

    Publisher(Manifest.Reader manifests, CurrentView current, Processes processes, SharedFiles shared) {
        this.shared = shared;
        this.processes = processes;
        this.manifests = manifests;
        this.current = current;
    }

    /**
     * Publishes what the records say now, and waits until everybody sees it.
     *
     * @throws org.springframework.dao.DataAccessException if they cannot be read; the view before stays
     */
    public void publish() throws IOException {
        await(request(true, Set.of()));
    }

    /** The same, where only this repository, and segments, have changed. */
    public void publish(long repositoryId) throws IOException {
        await(request(false, Set.of(repositoryId)));
    }

    /** The same, where only these repositories, and segments, have changed. */
    void publish(Set<Long> repositories) throws IOException {
        await(request(false, repositories));
    }

    /** The same, where only segments have changed. */
    void publishSegments() throws IOException {
        await(request(false, Set.of()));
    }

    /** Whether something that was to be published has failed, and waits for the next time. */
    synchronized boolean isBehind() {
        return next.isFailed && !next.isQueued;
    }

    private static void await(Asked asked) throws IOException {
        try {
            asked.done.join();
        } catch (CompletionException e) {
            switch (e.getCause()) {
                case UncheckedIOException failure -> throw failure.getCause();
                case RuntimeException failure -> throw failure;
                default -> throw e;
            }
        }
    }

    private synchronized Asked request(boolean everything, Set<Long> repositories) {
        Asked asked = next;
        asked.everything |= everything;
        asked.changed.addAll(repositories);
        if (!asked.isQueued) {
            try {
                thread.execute(this::make);
            } catch (RejectedExecutionException e) {
                throw new CancellationException("the service stops");
            }
            asked.isQueued = true;
        }
        return asked;
    }

    private void make() {
        long start = System.nanoTime();
        Asked asked;
        synchronized (this) {
            asked = next;
            next = new Asked(); // whoever asks from now on may have changed the records after they are read
        }
        try {
            View before = current.acquire();
            try {
                View after = next(before, asked);
                ViewBuilder.giveUpAbsent(before, after);
                current.swap(after);
            } finally {
                before.release();
            }
            asked.done.complete(null);
            rest(Duration.ofNanos(System.nanoTime() - start));
        } catch (IOException e) {
            failed(asked, new UncheckedIOException(e));
        } catch (RuntimeException | Error e) {
            failed(asked, e);
        }
    }

    /** A file may be gone, as another process has put another one in its place meanwhile. */
    private View next(View before, Asked asked) throws IOException {
        for (int tries = 1; ; tries++) {
            Manifest now = asked.everything || tries > 1 ? manifests.all() : manifests.next(manifest, asked.changed);
            try {
                bring(now);
                View after = ViewBuilder.next(before, now.segments(), now.branches(), now.pasts());
                manifest = now;
                manifests.isSeen();
                return after;
            } catch (IOException e) {
                if (tries == MOST_TRIES || !processes.hasOthers()) {
                    throw e;
                }
            }
        }
    }

    /** Files that other machines have written; the view before stays until all of them are here. */
    private void bring(Manifest now) throws IOException {
        if (shared.store().isPresent()) {
            Set<Path> here = manifest.files().collect(Collectors.toSet());
            shared.bring(now.files().filter(file -> !here.contains(file)).toList());
        }
    }

    /** Where views take long to make, as there are many repositories, several changes share the next one. */
    private static void rest(Duration took) {
        try {
            Thread.sleep(
                    took.multipliedBy(RESTS).compareTo(LONGEST_REST) < 0 ? took.multipliedBy(RESTS) : LONGEST_REST);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt(); // the service stops
        }
    }

    /** What this one was to publish, the next one must. */
    private void failed(Asked asked, Throwable reason) {
        synchronized (this) {
            next.everything |= asked.everything;
            next.changed.addAll(asked.changed);
            next.isFailed = true;
        }
        asked.done.completeExceptionally(reason);
    }

    @PreDestroy
    void close() {
        thread.shutdownNow();
    }
}
