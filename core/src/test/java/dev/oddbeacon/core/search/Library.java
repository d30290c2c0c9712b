package dev.oddbeacon.core.search;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** An index in a folder of a test: repositories go in, the view comes out. */
public final class Library implements AutoCloseable {
    private final Path folder;
    private final long largestFile;
    private final List<Path> segments = new ArrayList<>();
    private final List<ViewBuilder.Wanted> branches = new ArrayList<>();
    private View view = ViewBuilder.empty();

    public Library(Path folder) {
        this(folder, 32 << 20);
    }

    public Library(Path folder, long largestFile) {
        this.folder = folder;
        this.largestFile = largestFile;
    }

    public Ingest.Ingested add(String repository, SourceTree tree, String... labels) throws IOException {
        return add(repository, "main", tree, labels);
    }

    /** The first branch of a repository is its default one; adding one again replaces it. */
    public Ingest.Ingested add(String repository, String branch, SourceTree tree, String... labels) throws IOException {
        Ingest.Ingested done = new Ingest(folder, largestFile, 2).run(tree, view, new IngestProgress(), () -> false);
        segments.addAll(done.segments());
        branches.removeIf(old -> old.branch().repository().equals(repository) && old.branch().name().equals(branch));
        boolean isDefault = branches.stream().noneMatch(old -> old.branch().repository().equals(repository));
        branches.add(new ViewBuilder.Wanted(new Branch(repository, Set.of(labels), branch, "0".repeat(40), Instant.EPOCH, isDefault), done.snapshot()));
        View next = ViewBuilder.next(view, segments, branches);
        ViewBuilder.giveUpAbsent(view, next);
        view.release();
        view = next;
        return done;
    }

    public View view() {
        return view;
    }

    @Override
    public void close() {
        view.release();
    }
}
