package dev.oddbeacon.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.SegmentMerge;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.text.Utf8;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Views after many changes: pushes, merges, removals, lost segments. Whatever came before, each must say of every blob
 * what the trees say that it was made of, and so must its parts, and the views before it that are still held.
 */
class ViewChangesTest {
    private static final int STEPS = 250;
    private static final int HELD = 5;

    @TempDir
    Path folder;

    private final Random random = new Random(20261129);
    private final SortedMap<List<String>, Map<String, String>> trees =
            new TreeMap<>((a, b) -> a.getFirst().equals(b.getFirst())
                    ? a.getLast().compareTo(b.getLast())
                    : a.getFirst().compareTo(b.getFirst()));
    private final Map<List<String>, ViewBuilder.Wanted> branches = new HashMap<>();
    private final Map<String, String> groups = new HashMap<>(); // of repositories, as they are wanted now
    private final List<Path> segments = new ArrayList<>();
    private View view = ViewBuilder.empty();

    /** A view that somebody holds, and the trees that it was made of. */
    private record Held(View view, SortedMap<List<String>, Map<String, String>> trees) {}

    @Test
    void everyViewSaysWhatItsTreesSay() throws IOException {
        Deque<Held> held = new ArrayDeque<>();
        for (int step = 0; step < STEPS; step++) {
            switch (random.nextInt(10)) {
                case 0 -> remove();
                case 1 -> merge();
                case 2 -> relabel();
                case 3 -> regroup();
                default -> push();
            }
            check(view, trees);
            Set<String> hidden = Set.of("r" + random.nextInt(3), "r" + (3 + random.nextInt(3)));
            SortedMap<List<String>, Map<String, String>> seen = new TreeMap<>(trees);
            seen.keySet().removeIf(branch -> hidden.contains(branch.getFirst()));
            check(view.seenBy(hidden, name -> !hidden.contains(name)), seen);
            assertThat(view.acquire()).isTrue();
            held.addLast(new Held(view, new TreeMap<>(trees)));
            if (held.size() > HELD) {
                Held oldest = held.removeFirst();
                check(oldest.view, oldest.trees);
                oldest.view.release();
            }
        }
        assertThat(view.slots()).as("numbers are used again").isLessThan(STEPS * 2);
        held.forEach(each -> each.view.release());
        view.release();
    }

    private List<String> branch() {
        return List.of("r" + random.nextInt(6), "b" + random.nextInt(3));
    }

    private void push() throws IOException {
        List<String> branch = branch();
        Map<String, String> tree = new TreeMap<>(trees.getOrDefault(branch, Map.of()));
        for (int i = random.nextInt(12); i >= 0; i--) {
            String path = "d" + random.nextInt(4) + "/f" + random.nextInt(30) + ".txt";
            if (random.nextInt(4) == 0) {
                tree.remove(path);
            } else {
                tree.put(path, "text " + random.nextInt(60)); // which other branches have as well
            }
        }
        trees.put(branch, tree);
        ingest(branch);
    }

    /** Some branches of the repository stay where they are until they are pushed. */
    private void regroup() throws IOException {
        List<String> branch = branch();
        groups.put(branch.getFirst(), "g" + random.nextInt(3));
        if (trees.containsKey(branch)) {
            ingest(branch);
        }
    }

    private void ingest(List<String> branch) throws IOException {
        MemoryTree files = new MemoryTree();
        trees.get(branch).forEach((path, text) -> files.file(path, text.getBytes(StandardCharsets.UTF_8)));
        String group = groups.getOrDefault(branch.getFirst(), "");
        Ingest.Ingested done =
                new Ingest(NewFiles.in(folder), 1 << 20, 1, group).run(files, view, new IngestProgress(), () -> false);
        segments.addAll(done.segments());
        branches.put(branch, new ViewBuilder.Wanted(labelled(branch, "pushed"), done.snapshot()));
        publish();
    }

    private static Branch labelled(List<String> branch, String label) {
        return new Branch(
                branch.getFirst(),
                Set.of(label),
                branch.getLast(),
                "0".repeat(40),
                Instant.EPOCH,
                branch.getLast().equals("b0"));
    }

    private void relabel() throws IOException {
        branches.computeIfPresent(
                branch(), (branch, wanted) -> new ViewBuilder.Wanted(labelled(branch, "again"), wanted.snapshot()));
        publish();
    }

    private void remove() throws IOException {
        List<String> branch = branch();
        trees.remove(branch);
        branches.remove(branch);
        publish();
        segments.removeIf(path ->
                view.segments().stream().anyMatch(segment -> segment.file().equals(path) && !view.isUsed(segment)));
        publish();
    }

    private void merge() throws IOException {
        String group = random.nextBoolean() ? "" : "g" + random.nextInt(3);
        List<SegmentReader> some = view.segmentsOf(group).stream()
                .filter(segment -> view.isUsed(segment) && random.nextBoolean())
                .toList();
        if (!some.isEmpty()) {
            Path merged = folder.resolve("merged-" + random.nextLong() + ".segment");
            SegmentMerge.write(
                    some, (segment, blob) -> view.placeCount(segment, blob) > 0, SegmentMerge.Languages.SAME, merged);
            some.forEach(segment -> segments.remove(segment.file()));
            segments.add(merged);
            publish();
        }
    }

    private void publish() throws IOException {
        View next = ViewBuilder.next(view, segments, List.copyOf(branches.values()));
        ViewBuilder.giveUpAbsent(view, next);
        view.release();
        view = next;
    }

    private static void check(View view, SortedMap<List<String>, Map<String, String>> trees) {
        assertThat(view.branches().stream()
                        .map(branch -> List.of(branch.repository(), branch.name()))
                        .toList())
                .isEqualTo(List.copyOf(trees.keySet()));
        Map<String, Set<String>> expected = new HashMap<>(); // places by text
        for (var tree : trees.entrySet()) {
            tree.getValue()
                    .forEach((path, text) ->
                            expected.computeIfAbsent(text, _ -> new HashSet<>()).add(tree.getKey() + path));
            int number = view.branchNumber(
                            tree.getKey().getFirst(), tree.getKey().getLast())
                    .orElseThrow();
            assertThat(view.branch(number).name()).isEqualTo(tree.getKey().getLast());
            for (int file = 0; file < view.snapshot(number).count(); file++) {
                View.Location location = view.location(number, file).orElseThrow();
                assertThat(text(location.segment(), location.blob()))
                        .isEqualTo(tree.getValue().get(view.snapshot(number).path(file)));
                assertThat(view.segments().get(view.segmentNumber(number, file)))
                        .isSameAs(location.segment());
                assertThat(location.segment().about().group())
                        .isEqualTo(view.snapshot(number).about().group());
            }
        }
        Map<String, Set<String>> found = new HashMap<>();
        for (SegmentReader segment : view.segments()) {
            boolean[] isUsed = {false};
            for (int blob : IntStream.range(0, segment.blobCount()).toArray()) {
                Set<String> places = new HashSet<>();
                view.forEachPlace(segment, blob, (number, file) -> {
                    Branch branch = view.branch(number);
                    places.add(List.of(branch.repository(), branch.name())
                            + view.snapshot(number).path(file));
                });
                assertThat(view.placeCount(segment, blob)).isEqualTo(places.size());
                isUsed[0] |= !places.isEmpty();
                found.computeIfAbsent(text(segment, blob), _ -> new HashSet<>()).addAll(places);
            }
            assertThat(view.isUsed(segment)).isEqualTo(isUsed[0]);
        }
        found.values().removeIf(Set::isEmpty);
        assertThat(found).isEqualTo(expected);
        assertThat(ViewBuilder.incomplete(view)).isEmpty();
    }

    private static String text(SegmentReader segment, int blob) {
        return Utf8.string(segment.content(), segment.start(blob), segment.end(blob));
    }
}
