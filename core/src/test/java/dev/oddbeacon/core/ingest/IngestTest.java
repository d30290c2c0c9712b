package dev.oddbeacon.core.ingest;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class IngestTest {
    @TempDir
    Path folder;

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static int blobs(View view) {
        return view.segments().stream().mapToInt(SegmentReader::blobCount).sum();
    }

    @Test
    void aBlobIsStoredOnceHoweverManyPathsAndRepositoriesHoldIt() throws IOException {
        try (Library library = new Library(folder)) {
            library.add(
                    "one",
                    new MemoryTree()
                            .file("a", bytes("same"))
                            .file("b", bytes("same"))
                            .file("c", bytes("other")));
            library.add("two", new MemoryTree().file("d", bytes("same")));
            assertThat(blobs(library.view())).isEqualTo(2);
        }
    }

    @Test
    void aNewCommitCostsItsNewBlobs() throws IOException {
        try (Library library = new Library(folder)) {
            library.add("one", new MemoryTree().file("a", bytes("old")).file("b", bytes("also old")));
            Ingest.Ingested next = library.add(
                    "one",
                    new MemoryTree()
                            .file("a", bytes("old"))
                            .file("b", bytes("new"))
                            .file("moved", bytes("also old")));
            assertThat(next.segments()).hasSize(1);
            assertThat(blobs(library.view())).isEqualTo(3);
            assertThat(library.add("one", new MemoryTree().file("a", bytes("new")))
                            .segments())
                    .as("nothing new, no segment")
                    .isEmpty();
        }
    }

    @Test
    void skipsAndSaysWhy() throws IOException {
        try (Library library = new Library(folder, 100)) {
            Ingest.Ingested done = library.add(
                    "one",
                    new MemoryTree()
                            .file("bin", new byte[] {0, 1})
                            .file("big", bytes("x".repeat(101)))
                            .file("ok", bytes("1\n2\n"))
                            .other("sub", SourceTree.Kind.SUBMODULE)
                            .other("link", SourceTree.Kind.LINK)
                            .missing("gone"));
            assertThat(done.skipped()).isEqualTo(5);
            assertThat(done.lines()).isEqualTo(2);
            var snapshot = library.view().snapshot(0);
            assertThat(Stream.of("big", "bin", "gone", "link", "ok", "sub")
                            .map(path -> snapshot.standing(snapshot.find(path).orElseThrow())))
                    .containsExactly(
                            Standing.TOO_LARGE,
                            Standing.BINARY,
                            Standing.UNREADABLE,
                            Standing.LINK,
                            Standing.SEARCHED,
                            Standing.SUBMODULE);
        }
    }

    @Test
    void filesThatNoViewNeedsAreDeletedWhenTheLastSearchLetsGo() throws IOException {
        try (Library library = new Library(folder)) {
            library.add("one", new MemoryTree().file("a", bytes("old")));
            View old = library.view();
            assertThat(old.acquire()).isTrue();
            Path snapshot = old.snapshot(0).file();
            library.add("one", new MemoryTree().file("a", bytes("new")));
            assertThat(snapshot).as("a search still reads it").exists();
            assertThat(old.snapshot(0).path(0)).isEqualTo("a");
            old.release();
            assertThat(snapshot).doesNotExist();
            assertThat(old.acquire()).as("it is closed for good").isFalse();
        }
    }

    @Test
    void aLostSegmentIsNoticed() throws IOException {
        try (Library library = new Library(folder)) {
            Ingest.Ingested done = library.add("one", new MemoryTree().file("a", bytes("text")));
            assertThat(ViewBuilder.incomplete(library.view())).isEmpty();
            View without = ViewBuilder.next(
                    ViewBuilder.empty(),
                    java.util.List.of(),
                    java.util.List.of(new ViewBuilder.Wanted(library.view().branch(0), done.snapshot())));
            assertThat(ViewBuilder.incomplete(without)).hasSize(1);
            without.release();
        }
    }

    @Test
    void leavesNothingUnfinishedWhenItIsCancelled() throws IOException {
        MemoryTree tree = new MemoryTree().file("a", bytes("text"));
        Ingest ingest = new Ingest(NewFiles.in(folder), 1_000, 1, "");
        assertThatThrownBy(() -> ingest.run(tree, ViewBuilder.empty(), new IngestProgress(), () -> true))
                .isInstanceOf(CancellationException.class);
        assertThat(folder).isEmptyDirectory();
    }
}
