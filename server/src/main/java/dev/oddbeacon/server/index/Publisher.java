package dev.oddbeacon.server.index;

import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import dev.oddbeacon.server.Settings;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
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
    private final Path folder;
    private final Manifest.Reader manifests;
    private final CurrentView current;
    private final ExecutorService thread = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().daemon().name("publisher").factory());
    private CompletableFuture<Void> next; // asked for, and not begun; guarded by this

    Publisher(Settings settings, Manifest.Reader manifests, CurrentView current) {
        this.folder = settings.indexFolder();
        this.manifests = manifests;
        this.current = current;
    }

    /**
     * Publishes what the records say now, and waits until everybody sees it.
     *
     * @throws org.springframework.dao.DataAccessException if they cannot be read; the view before stays
     */
    public void publish() throws IOException {
        try {
            request().join();
        } catch (CompletionException e) {
            switch (e.getCause()) {
                case UncheckedIOException failure -> throw failure.getCause();
                case RuntimeException failure -> throw failure;
                default -> throw e;
            }
        }
    }

    private synchronized CompletableFuture<Void> request() {
        if (next == null) {
            CompletableFuture<Void> asked = new CompletableFuture<>();
            try {
                thread.execute(() -> make(asked));
            } catch (RejectedExecutionException e) {
                throw new CancellationException("the service stops");
            }
            next = asked;
        }
        return next;
    }

    private void make(CompletableFuture<Void> asked) {
        synchronized (this) {
            next = null; // whoever asks from now on may have changed the records after they are read
        }
        try {
            Manifest manifest = manifests.read();
            View before = current.acquire();
            try {
                View after = view(before, manifest);
                ViewBuilder.giveUpAbsent(before, after);
                current.swap(after);
            } finally {
                before.release();
            }
            asked.complete(null);
        } catch (IOException e) {
            asked.completeExceptionally(new UncheckedIOException(e));
        } catch (RuntimeException | Error e) {
            asked.completeExceptionally(e);
        }
    }

    private View view(View before, Manifest manifest) throws IOException {
        List<ViewBuilder.Wanted> branches = manifest.branches().stream()
                .map(live -> new ViewBuilder.Wanted(live.branch(), folder.resolve(live.snapshot())))
                .toList();
        Map<String, List<Path>> pasts = manifest.pasts().entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey,
                        entry -> entry.getValue().stream().map(folder::resolve).toList()));
        return ViewBuilder.next(
                before, manifest.segments().stream().map(folder::resolve).toList(), branches, pasts);
    }

    @PreDestroy
    void close() {
        thread.shutdownNow();
    }
}
