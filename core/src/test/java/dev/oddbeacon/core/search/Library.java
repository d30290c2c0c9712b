package dev.oddbeacon.core.search;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.SegmentMerge;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** An index in a folder of a test: repositories go in, the view comes out. */
public final class Library implements AutoCloseable {
    /** The moment of all requests of tests. */
    public static final Instant NOW = Instant.parse("2026-06-15T12:00:00Z");

    private static final SearchPool POOL = new SearchPool(2);

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
        return add(
                new Branch(
                        repository, Set.of(labels), branch, "0".repeat(40), Instant.EPOCH, isFirst(repository, branch)),
                tree);
    }

    private boolean isFirst(String repository, String branch) {
        return branches.stream()
                .map(ViewBuilder.Wanted::branch)
                .noneMatch(old ->
                        old.repository().equals(repository) && !old.name().equals(branch));
    }

    /** Adds a branch, or replaces it. */
    public Ingest.Ingested add(Branch branch, SourceTree tree) throws IOException {
        Ingest.Ingested done =
                new Ingest(NewFiles.in(folder), largestFile, 2, "").run(tree, view, new IngestProgress(), () -> false);
        segments.addAll(done.segments());
        branches.removeIf(old -> old.branch().repository().equals(branch.repository())
                && old.branch().name().equals(branch.name()));
        branches.add(new ViewBuilder.Wanted(branch, done.snapshot()));
        View next = ViewBuilder.next(view, segments, branches);
        ViewBuilder.giveUpAbsent(view, next);
        view.release();
        view = next;
        return done;
    }

    /** Makes one segment of all. */
    public void merge() throws IOException {
        Path merged = folder.resolve("merged" + segments.size() + ".segment");
        SegmentMerge.write(
                view.segments(),
                (segment, blob) -> view.placeCount(segment, blob) > 0,
                SegmentMerge.Languages.SAME,
                merged);
        segments.clear();
        segments.add(merged);
        View next = ViewBuilder.next(view, segments, branches);
        ViewBuilder.giveUpAbsent(view, next);
        view.release();
        view = next;
    }

    public View view() {
        return view;
    }

    /** What a request may use that sees all of it and takes its time. */
    public SearchContext context() {
        return context(Exclusions.NONE, new Budget(Duration.ofMinutes(1)));
    }

    public SearchContext context(Exclusions exclusions, Budget budget) {
        return context(view, exclusions, budget);
    }

    public static SearchContext context(View view, Exclusions exclusions, Budget budget) {
        return new SearchContext(view, exclusions, NOW, budget, POOL, () -> {});
    }

    @Override
    public void close() {
        view.release();
    }
}
