package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.Edits;
import dev.oddbeacon.client.worktree.Git;
import dev.oddbeacon.client.worktree.LineMap;
import dev.oddbeacon.client.worktree.LocalIndex;
import dev.oddbeacon.client.worktree.WorkTree;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.function.Function;

/**
 * A work tree in the editor: what the index knows of it, and where it differs by now, in files that were saved and in
 * documents that were not.
 */
final class WorkFolder implements AutoCloseable {
    private static final long LOOK_AGAIN = Duration.ofSeconds(2).toNanos();
    private static final int MOST_MAPS = 200;
    private static final int MOST_CHANGED = 2_000;

    private final WorkTree tree;
    private final Path root;
    private final Service service;
    private final Documents documents;

    private String branch;
    private String commit = "";
    private long lookedAt;
    private long asOfChanges = -1;
    private Edits edits;
    private LocalIndex local;
    private Map<String, byte[]> localFiles = Map.of();
    private final Map<String, Optional<String>> indexedTexts = new HashMap<>();

    private record Mapped(String now, LineMap map) {}

    private final Map<String, Mapped> maps = new LinkedHashMap<>();

    WorkFolder(WorkTree tree, Service service, Documents documents) {
        this.tree = tree;
        this.root = real(tree.root());
        this.service = service;
        this.documents = documents;
        this.branch = tree.branch();
        look();
    }

    private static Path real(Path path) {
        try {
            return path.toRealPath();
        } catch (IOException e) {
            return path;
        }
    }

    String repository() {
        return tree.repository();
    }

    /** The branch that it is compared with; empty for the default one. */
    synchronized String branch() {
        return branch;
    }

    /** The path in the repository; empty if the file does not lie in the work tree. */
    Optional<String> path(Path file) {
        Path in = file.startsWith(root)
                ? root.relativize(file)
                : file.startsWith(tree.root()) ? tree.root().relativize(file) : null;
        return Optional.ofNullable(in).map(Path::toString).filter(path -> !path.isEmpty());
    }

    Path file(String path) {
        return tree.root().resolve(path);
    }

    /** The text of a file as the editor has it, or else as it was saved; empty if there is none. */
    Optional<String> text(String path) {
        return documents
                .at(file(path))
                .or(() -> documents.at(root.resolve(path)))
                .map(Documents.Open::text)
                .or(() -> saved(path));
    }

    private Optional<String> saved(String path) {
        Path file = root.resolve(path);
        try {
            return Files.isRegularFile(file) ? decoded(Files.readAllBytes(file)) : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    private static Optional<String> decoded(byte[] bytes) {
        return TextDecoder.decode(bytes).map(text -> new String(text.utf8(), StandardCharsets.UTF_8));
    }

    /** The lines of a file, from those of the index to those of now; empty if the index does not have it. */
    synchronized Optional<LineMap> lines(String path) {
        look();
        Optional<String> now = text(path);
        Optional<String> before = indexedText(path);
        if (now.isEmpty() || before.isEmpty()) {
            return Optional.empty();
        }
        Mapped known = maps.get(path);
        if (known == null || !known.now.equals(now.get())) {
            known = new Mapped(now.get(), LineMap.between(before.get(), now.get()));
            if (maps.size() >= MOST_MAPS) {
                maps.clear();
            }
            maps.put(path, known);
        }
        return Optional.of(known.map);
    }

    /** The line of now that an indexed line has become; empty if it went. */
    OptionalInt now(String path, int line) {
        return lines(path).map(map -> map.after(line)).orElse(OptionalInt.empty());
    }

    private Optional<String> indexedText(String path) {
        return indexedTexts.computeIfAbsent(
                path,
                _ -> new Git(root)
                        .bytes("show", commit + ":" + path)
                        .map(WorkFolder::decoded)
                        .orElseGet(() -> askedText(path)));
    }

    /** Of a commit that the work tree does not have. */
    private Optional<String> askedText(String path) {
        try {
            return Optional.ofNullable(service.get(
                            Service.path("repositories", repository(), "file"),
                            new Service.Parameters().add("path", path).add("rev", commit),
                            FileContent.class)
                    .text());
        } catch (ServiceProblem e) {
            return Optional.empty();
        }
    }

    /** Whatever the editor did not tell is looked at again. */
    synchronized void forget() {
        lookedAt = 0;
    }

    /** @throws ServiceProblem if the service cannot be asked, and never could */
    private void look() {
        if (lookedAt != 0 && System.nanoTime() - lookedAt < LOOK_AGAIN) {
            return;
        }
        try {
            takeIndexed(service.get(
                    Service.path("repositories", repository()), new Service.Parameters(), RepositoryInfo.class));
        } catch (ServiceProblem e) {
            if (lookedAt == 0 && commit.isEmpty()) {
                throw e;
            }
            // what was indexed when it could be asked stands until it can be again
        }
        edits = commit.isEmpty() ? null : Edits.since(root, commit, false);
        asOfChanges = -1;
        lookedAt = System.nanoTime();
    }

    private void takeIndexed(RepositoryInfo info) {
        if (!info.branches().isEmpty() && info.branches().getFirst().name().equals(branch)) {
            branch = "";
        }
        String indexed = info.branches().stream()
                .filter(one -> branch.isEmpty() || one.name().equals(branch))
                .findFirst()
                .map(RepositoryInfo.Branch::commit)
                .orElse("");
        if (!indexed.equals(commit)) {
            commit = indexed;
            maps.clear();
            indexedTexts.clear();
        }
    }

    /** The index of what is not indexed: files that changed or are new, and documents that are not saved. */
    synchronized <T> T local(Function<LocalIndex, T> use) {
        look();
        if (documents.changes() != asOfChanges) {
            NavigableMap<String, byte[]> files = new TreeMap<>();
            if (edits != null) {
                edits.present().stream()
                        .limit(MOST_CHANGED)
                        .forEach(path -> text(path).ifPresent(text -> files.put(path, utf8(text))));
            }
            documents
                    .all()
                    .forEach((file, document) -> path(file)
                            .filter(path -> !isIndexedAs(path, document.text()))
                            .ifPresent(path -> files.put(path, utf8(document.text()))));
            if (local == null || !isSame(files, localFiles)) {
                if (local != null) {
                    local.close();
                }
                local = LocalIndex.of(repository(), branch.isEmpty() ? "main" : branch, files);
                localFiles = files;
            }
            asOfChanges = documents.changes();
        }
        return use.apply(local);
    }

    private boolean isIndexedAs(String path, String text) {
        return indexedText(path).filter(text::equals).isPresent();
    }

    private static boolean isSame(Map<String, byte[]> files, Map<String, byte[]> others) {
        return files.keySet().equals(others.keySet())
                && files.entrySet().stream()
                        .allMatch(file -> Arrays.equals(file.getValue(), others.get(file.getKey())));
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Override
    public synchronized void close() {
        if (local != null) {
            local.close();
            local = null;
            asOfChanges = -1;
        }
    }
}
