package dev.oddbeacon.core.ingest;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A tree that can be searched in parts while it is read. */
class IngestInPartsTest {
    private static final int LARGE = 9 << 20; // above it a file has a segment of its own
    private static final int COUNT = 4;
    private static final int MISSING = 10; // bytes of the file that cannot be read
    private static final Branch MAIN = new Branch("harbour", Set.of(), "main", "0".repeat(40), Instant.EPOCH, true);

    @TempDir
    private Path folder;

    /** Files of each kind, more than one segment of them. */
    private static MemoryTree tree() {
        Random random = new Random(5);
        MemoryTree tree =
                new MemoryTree().file("bin", new byte[] {0, 1}).missing("gone").other("link", SourceTree.Kind.LINK);
        for (int i = 0; i < COUNT; i++) {
            StringBuilder text = new StringBuilder();
            while (text.length() < LARGE) {
                text.append(random.nextLong()).append(" fathoms\n");
            }
            tree.file("large" + i, text.toString().getBytes(StandardCharsets.UTF_8));
            tree.file("small" + i, ("depth " + i + "\n").getBytes(StandardCharsets.UTF_8));
        }
        return tree;
    }

    /** What each part has, with all that was handed out before. */
    private static final class Taken implements Ingest.Parts {
        private final List<Path> segments = new ArrayList<>();
        private final List<Long> unread = new ArrayList<>();
        private Path snapshot;

        @Override
        public void take(Ingest.Ingested part) throws IOException {
            segments.addAll(part.segments());
            snapshot = part.snapshot();
            unread.add(part.unread());
            View view = ViewBuilder.next(
                    ViewBuilder.empty(), segments, List.of(new ViewBuilder.Wanted(MAIN, part.snapshot())));
            try {
                assertThat(view.snapshot(0).count())
                        .as("all names can be found")
                        .isEqualTo(3 + 2 * COUNT);
                assertThat(ViewBuilder.incomplete(view))
                        .as("what is said to be searched is in a segment")
                        .isEmpty();
                SnapshotReader files = view.snapshot(0);
                assertThat(IntStream.range(0, files.count())
                                .filter(file -> files.standing(file) == Standing.UNREAD)
                                .mapToLong(files::bytes)
                                .sum())
                        .isEqualTo(part.unread());
            } finally {
                view.release();
            }
        }
    }

    private final Taken taken = new Taken();

    private Ingest.Ingested run(View known, int mostParts) throws IOException {
        Ingest ingest = new Ingest(NewFiles.in(folder), 32 << 20, 2, "");
        return ingest.run(
                ingest.plan(tree(), known),
                new IngestProgress(),
                () -> taken.unread.size() >= mostParts,
                Optional.of(new Ingest.InParts(taken, 0, Duration.ZERO)));
    }

    @Test
    void hasAllNamesFirstAndThenMoreAndMoreText() throws IOException {
        taken.take(run(ViewBuilder.empty(), Integer.MAX_VALUE));
        assertThat(taken.unread).hasSizeGreaterThan(COUNT).isSortedAccordingTo((a, b) -> Long.compare(b, a));
        assertThat(taken.unread.getFirst()).isGreaterThan(COUNT * (long) LARGE);
        assertThat(taken.unread.getLast()).isZero();
    }

    @Test
    void isInTheEndWhatItIsInOnePiece() throws IOException {
        taken.take(run(ViewBuilder.empty(), Integer.MAX_VALUE));
        Path other = Files.createDirectory(folder.resolve("other"));
        Ingest.Ingested whole = new Ingest(NewFiles.in(other), 32 << 20, 2, "")
                .run(tree(), ViewBuilder.empty(), new IngestProgress(), () -> false);
        assertThat(described(taken.segments, taken.snapshot)).isEqualTo(described(whole.segments(), whole.snapshot()));
    }

    /** Each path with its standing, lines and type, and whether its text is there. */
    private static TreeMap<String, String> described(List<Path> segments, Path snapshot) throws IOException {
        View view = ViewBuilder.next(ViewBuilder.empty(), segments, List.of(new ViewBuilder.Wanted(MAIN, snapshot)));
        try {
            TreeMap<String, String> described = new TreeMap<>();
            for (int file = 0; file < view.snapshot(0).count(); file++) {
                described.put(
                        view.snapshot(0).path(file),
                        view.snapshot(0).file(file) + " "
                                + view.location(0, file).isPresent());
            }
            return described;
        } finally {
            view.release();
        }
    }

    @Test
    void keepsWhatWasHandedOutWhenItIsCancelledAndReadsTheRestLater() throws IOException {
        assertThatThrownBy(() -> run(ViewBuilder.empty(), 5)).isInstanceOf(CancellationException.class);
        assertThat(taken.segments)
                .isNotEmpty()
                .allSatisfy(segment -> assertThat(segment).exists());
        try (Stream<Path> files = Files.list(folder)) {
            assertThat(files.filter(file -> file.toString().endsWith(".segment")))
                    .as("nothing else is left")
                    .containsExactlyInAnyOrderElementsOf(taken.segments);
        }
        long unread = taken.unread.getLast();
        assertThat(unread).isBetween(1L, (COUNT - 1) * (LARGE + 100L));
        View view = ViewBuilder.next(
                ViewBuilder.empty(), taken.segments, List.of(new ViewBuilder.Wanted(MAIN, taken.snapshot)));
        try {
            assertThat(new Ingest(NewFiles.in(folder), 32 << 20, 2, "")
                            .plan(tree(), view)
                            .newBytes())
                    .as("what was not read, and what could not be")
                    .isEqualTo(unread + MISSING);
        } finally {
            view.release();
        }
    }

    @Test
    void aSmallTreeIsNotWorthParts() throws IOException {
        Ingest ingest = new Ingest(NewFiles.in(folder), 32 << 20, 2, "");
        Ingest.Ingested done = ingest.run(
                ingest.plan(new MemoryTree().file("a", "one\n".getBytes(StandardCharsets.UTF_8)), ViewBuilder.empty()),
                new IngestProgress(),
                () -> false,
                Optional.of(new Ingest.InParts(taken, 1_000, Duration.ZERO)));
        assertThat(taken.unread).isEmpty();
        assertThat(done.unread()).isZero();
    }
}
