package dev.oddbeacon.server.files;

import dev.oddbeacon.api.Submodule;
import dev.oddbeacon.api.Tree;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Revisions;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/**
 * {@code GET /api/v1/repositories/{name}/tree}: a repository's folders, level by level: of an indexed branch from its
 * snapshot, else from the mirror.
 */
@RestController
class TreeController {
    private final Contexts contexts;
    private final Submodules submodules;

    TreeController(Contexts contexts, Submodules submodules) {
        this.contexts = contexts;
        this.submodules = submodules;
    }

    @Operation(
            summary = "What lies directly in a folder",
            description = "rev is a branch, a tag or the beginning of a commit's id; without it, the default branch.")
    @GetMapping("/api/v1/repositories/{name}/tree")
    Tree tree(
            Caller caller,
            @PathVariable String name,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "") String rev)
            throws IOException {
        String folder = Split.strip(path, '/');
        try (CallerContext context = contexts.open(caller)) {
            Repository repository = context.repository(name);
            View view = context.view();
            Optional<Integer> number = view.branchNumber(name, rev);
            if (number.isPresent()) {
                Branch branch = view.branch(number.get());
                List<Tree.Entry> entries = indexed(view.snapshot(number.get()), folder);
                if (entries.isEmpty() && !folder.isEmpty()) {
                    throw missing(folder, branch.name(), name);
                }
                return new Tree(
                        name,
                        branch.name(),
                        branch.commit(),
                        folder,
                        sorted(led(context, repository, branch.commit(), entries)));
            }
            if (rev.isEmpty()) {
                throw Revisions.notIndexed(repository);
            }
            try (MirrorReader reader = context.mirror(repository)) {
                String commit = Revisions.named(name, reader, rev);
                List<Tree.Entry> entries =
                        reader.children(commit, folder).orElseThrow(() -> missing(folder, rev, name)).stream()
                                .map(TreeController::entry)
                                .toList();
                return new Tree(name, "", commit, folder, sorted(led(context, repository, commit, entries)));
            }
        }
    }

    /** Entries whose submodules say where they lead. */
    private List<Tree.Entry> led(CallerContext context, Repository repository, String commit, List<Tree.Entry> entries)
            throws IOException {
        if (entries.stream().allMatch(entry -> entry.submodule() == null) || !context.hasMirror(repository)) {
            return entries;
        }
        try (MirrorReader reader = context.mirror(repository)) {
            Submodules.Of all = submodules.of(context, repository, reader, commit);
            return entries.stream()
                    .map(entry -> entry.submodule() == null
                            ? entry
                            : new Tree.Entry(
                                    entry.name(),
                                    entry.path(),
                                    entry.kind(),
                                    entry.type(),
                                    entry.traits(),
                                    entry.bytes(),
                                    entry.lines(),
                                    entry.files(),
                                    entry.skipped(),
                                    all.at(
                                            entry.path(),
                                            ObjectId.of(entry.submodule().commit()))))
                    .toList();
        }
    }

    /** Where it leads is not known yet. */
    private static Submodule submodule(String kind, ObjectId commit) {
        return kind.equals("submodule") ? new Submodule(commit.toString(), null, null) : null;
    }

    private static NotFoundException missing(String folder, String revision, String name) {
        return new NotFoundException("There is no folder " + folder + " on " + revision + " of " + name
                + ". Paths start at the repository's root.");
    }

    private static List<Tree.Entry> sorted(List<Tree.Entry> entries) {
        return entries.stream()
                .sorted(Comparator.comparing((Tree.Entry entry) -> !entry.kind().equals("folder"))
                        .thenComparing(Tree.Entry::name, String.CASE_INSENSITIVE_ORDER)
                        .thenComparing(Tree.Entry::name))
                .toList();
    }

    /** Files of one folder stand together in a snapshot, so each folder is read off in one pass. */
    private static List<Tree.Entry> indexed(SnapshotReader snapshot, String folder) {
        String start = folder.isEmpty() ? "" : folder + "/";
        SnapshotReader.Range range = snapshot.startingWith(start);
        List<Tree.Entry> entries = new ArrayList<>();
        String open = ""; // the folder below that is being added up
        long bytes = 0;
        long lines = 0;
        int files = 0;
        for (int number = range.from(); number < range.to(); number++) {
            String path = snapshot.path(number);
            int slash = path.indexOf('/', start.length());
            String below = slash < 0 ? "" : path.substring(0, slash);
            if (!below.equals(open)) {
                if (!open.isEmpty()) {
                    entries.add(folder(open, bytes, lines, files));
                }
                open = below;
                bytes = 0;
                lines = 0;
                files = 0;
            }
            if (slash < 0) {
                entries.add(file(snapshot.file(number)));
            } else {
                bytes += snapshot.bytes(number);
                lines += snapshot.lines(number);
                files++;
            }
        }
        if (!open.isEmpty()) {
            entries.add(folder(open, bytes, lines, files));
        }
        return entries;
    }

    private static Tree.Entry folder(String path, long bytes, long lines, int files) {
        return new Tree.Entry(name(path), path, "folder", "", List.of(), bytes, lines, files, null, null);
    }

    private static Tree.Entry file(SnapshotFile file) {
        String kind = switch (file.standing()) {
            case SUBMODULE -> "submodule";
            case LINK -> "link";
            default -> "file";
        };
        return new Tree.Entry(
                name(file.path()),
                file.path(),
                kind,
                file.type(),
                Traits.labels(file.traits()),
                file.bytes(),
                file.lines(),
                1,
                file.standing() == SnapshotFile.Standing.SEARCHED
                        ? null
                        : file.standing().reason(),
                submodule(kind, file.id()));
    }

    private static Tree.Entry entry(MirrorReader.Child child) {
        String kind = child.file()
                .map(file -> switch (file.kind()) {
                    case SUBMODULE -> "submodule";
                    case LINK -> "link";
                    case FILE -> "file";
                })
                .orElse("folder");
        return new Tree.Entry(
                name(child.path()),
                child.path(),
                kind,
                "",
                List.of(),
                child.file().map(SourceTree.Entry::bytes).orElse(-1L),
                -1,
                child.file().isPresent() ? 1 : -1,
                null,
                child.file().map(file -> submodule(kind, file.id())).orElse(null));
    }

    private static String name(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }
}
