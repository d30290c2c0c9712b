package dev.oddbeacon.client.lsp;

import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.LineMap;
import dev.oddbeacon.client.worktree.WorkTree;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** The files that the editor may show, and which repositories they are of. */
final class Sources implements AutoCloseable {
    private static final long ASK_AGAIN = Duration.ofSeconds(5).toNanos();

    private final Service service;
    private final Documents documents;
    private final Copies copies;
    private final Consumer<String> complaints;
    private final List<WorkFolder> folders = new ArrayList<>();
    private final Map<Path, Long> refused = new HashMap<>();

    /** @param complaints takes what the person at the editor should know */
    Sources(Service service, Documents documents, Copies copies, Consumer<String> complaints) {
        this.service = service;
        this.documents = documents;
        this.copies = copies;
        this.complaints = complaints;
    }

    /** The file of a document; empty if no repository of the service is known for it. */
    Optional<Source> of(String uri) {
        Optional<Path> file = Documents.file(uri);
        if (file.isEmpty()) {
            return Optional.empty();
        }
        Optional<Copies.Origin> origin = copies.origin(file.get());
        if (origin.isPresent()) {
            return copy(file.get(), origin.get());
        }
        return folder(file.get().getParent()).flatMap(folder -> {
            String path = folder.path(file.get()).orElse("");
            return folder.text(path)
                    .map(text -> new Source(
                            folder.repository(), folder.branch(), path, Optional.of(folder), text, folder.lines(path)));
        });
    }

    private static Optional<Source> copy(Path file, Copies.Origin origin) {
        try {
            return Optional.of(new Source(
                    origin.repository(),
                    origin.branch(),
                    origin.path(),
                    Optional.empty(),
                    Files.readString(file),
                    Optional.of(LineMap.SAME)));
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    /** The work tree that a folder lies in; empty if it is of no repository of the service, or the service is gone. */
    synchronized Optional<WorkFolder> folder(Path folder) {
        Optional<WorkFolder> known = folders.stream()
                .filter(one -> one.path(folder.resolve("file")).isPresent())
                .findFirst();
        if (known.isPresent() || isRefused(folder)) {
            return known;
        }
        try {
            Optional<WorkFolder> found =
                    WorkTree.at(folder, service).map(tree -> new WorkFolder(tree, service, documents));
            found.ifPresent(folders::add);
            if (found.isEmpty()) {
                refused.put(folder, System.nanoTime());
            }
            return found;
        } catch (ServiceProblem e) {
            if (!refused.containsKey(folder)) {
                complaints.accept(e.getMessage());
            }
            refused.put(folder, System.nanoTime());
            return Optional.empty();
        }
    }

    private boolean isRefused(Path folder) {
        Long since = refused.get(folder);
        return since != null && System.nanoTime() - since < ASK_AGAIN;
    }

    /** The work tree of a repository; empty if the editor has none open. */
    synchronized Optional<WorkFolder> ofRepository(String repository) {
        return folders.stream()
                .filter(folder -> folder.repository().equals(repository))
                .findFirst();
    }

    synchronized List<WorkFolder> folders() {
        return List.copyOf(folders);
    }

    /** Whatever the editor did not tell is looked at again. */
    synchronized void forget() {
        folders.forEach(WorkFolder::forget);
    }

    @Override
    public synchronized void close() {
        folders.forEach(WorkFolder::close);
        folders.clear();
    }
}
