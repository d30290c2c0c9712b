package dev.oddbeacon.core.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.files.FileSearch.Kind;
import dev.oddbeacon.core.files.FileSearch.Order;
import dev.oddbeacon.core.files.FileSearch.PathReading;
import dev.oddbeacon.core.files.FileSearch.Sizes;
import dev.oddbeacon.core.files.FileSearch.Sorting;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.search.Stop;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FileSearchTest {
    @TempDir
    Path folder;

    private Library library;

    @BeforeEach
    void open() {
        library = new Library(folder);
    }

    @AfterEach
    void close() {
        library.close();
    }

    private FileSearch.Answer search(String text, PathReading reading, Scope scope, Kind kind, Order order) {
        return new FileSearch(text, reading, CaseMode.AUTO, scope, kind, Sizes.ANY, Sorting.by(order), 0, 1_000)
                .run(library.context());
    }

    private List<String> paths(String text, PathReading reading) {
        return search(text, reading, Scope.EVERYTHING, Kind.FILE, Order.RELEVANCE).page().stream()
                .map(FileSearch.Found::path)
                .toList();
    }

    private List<String> paths(String text) {
        return paths(text, PathReading.FRAGMENTS);
    }

    private void add(String... paths) throws IOException {
        MemoryTree tree = new MemoryTree();
        for (String path : paths) {
            tree.file(path, path.getBytes(StandardCharsets.UTF_8));
        }
        library.add("r", tree);
    }

    @Test
    void everyFragmentMustOccurInAnyOrderAndTheNameCountsMost() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("tide/chart.py", new byte[0])
                        .file("chart/about/the/tide.md", new byte[0])
                        .file("tide/other.py", new byte[0])
                        .other("Chart-TIDE", SourceTree.Kind.LINK));
        FileSearch.Answer answer =
                search("tide chart", PathReading.FRAGMENTS, Scope.EVERYTHING, Kind.FILE, Order.RELEVANCE);
        assertThat(answer.page())
                .extracting(FileSearch.Found::path)
                .containsExactlyInAnyOrder("Chart-TIDE", "tide/chart.py", "chart/about/the/tide.md");
        assertThat(answer.page())
                .filteredOn(found -> found.path().equals("Chart-TIDE"))
                .extracting(FileSearch.Found::matches)
                .containsExactly(List.of(new Span(0, 5), new Span(6, 10)));
        assertThat(search("", PathReading.FRAGMENTS, Scope.EVERYTHING, Kind.FILE, Order.RELEVANCE)
                        .files())
                .isEqualTo(4);
    }

    @Test
    void filesThatHoldATextAreNotSaidToBeAllWhenThereWasNoTimeToLook() throws IOException {
        library.add("r", new MemoryTree().file("f", "auk\n".getBytes(StandardCharsets.UTF_8)));
        FileSearch search = new FileSearch(
                "holds(auk)",
                PathReading.EXPRESSION,
                CaseMode.AUTO,
                Scope.EVERYTHING,
                Kind.FILE,
                Sizes.ANY,
                Sorting.by(Order.PATH),
                0,
                10);
        assertThat(search.run(library.context()).exact()).isTrue();
        assertThat(search.run(library.context(Exclusions.NONE, new Budget(Duration.ZERO)))
                        .exact())
                .isFalse();
    }

    @Test
    void theFileThatIsMeantComesFirst() throws IOException {
        add(
                "src/mooring/edit.vue",
                "src/mooring/editor.vue",
                "src/other/edit.vue",
                "test/mooring/edit.test.vue",
                "vendor/edit.vue",
                "docs/how-to-edit-a-mooring.md",
                "src/berth/BerthPlanner.java",
                "src/berth/BerthPlannerTest.java",
                "src/berth/PlannedBerth.java",
                "b/p/j.txt");
        assertThat(paths("mooring/edit").getFirst()).isEqualTo("src/mooring/edit.vue");
        assertThat(paths("edit").subList(0, 2)).containsExactlyInAnyOrder("src/other/edit.vue", "src/mooring/edit.vue");
        assertThat(paths("edit").getLast()).isEqualTo("docs/how-to-edit-a-mooring.md");
        assertThat(paths("berthplanner").getFirst()).isEqualTo("src/berth/BerthPlanner.java");
        assertThat(paths("planner berth")).startsWith("src/berth/BerthPlanner.java", "src/berth/BerthPlannerTest.java");
    }

    @Test
    void lettersMaySkip() throws IOException {
        add("src/berth/BerthPlanner.java", "src/berth/Planner.java", "src/harbour_master_log.py", "src/able.txt");
        assertThat(paths("bpj")).containsExactly("src/berth/BerthPlanner.java", "src/berth/Planner.java");
        assertThat(paths("brthpl")).containsExactly("src/berth/BerthPlanner.java");
        assertThat(paths("brthPlnr")).containsExactly("src/berth/BerthPlanner.java");
        assertThat(paths("hrmslg")).containsExactly("src/harbour_master_log.py");
        assertThat(paths("brthxx")).isEmpty();
        assertThat(paths("hml")).containsExactly("src/harbour_master_log.py");
        assertThat(search("hml", PathReading.FRAGMENTS, Scope.EVERYTHING, Kind.FILE, Order.RELEVANCE)
                        .page()
                        .getFirst()
                        .matches())
                .containsExactly(new Span(4, 5), new Span(12, 13), new Span(19, 20));
        assertThat(paths("xyz")).isEmpty();
    }

    @Test
    void otherReadingsAreAboutThePathToo() throws IOException {
        add("src/Tide.java", "src/tide.py", "src/deep/Tide.java", "docs/TIDE.md", "a [b].txt");
        assertThat(paths("*.java", PathReading.GLOB)).containsExactlyInAnyOrder("src/Tide.java", "src/deep/Tide.java");
        assertThat(paths("src/*", PathReading.GLOB)).containsExactlyInAnyOrder("src/Tide.java", "src/tide.py");
        assertThat(paths("**/deep/**", PathReading.GLOB)).containsExactly("src/deep/Tide.java");
        assertThat(paths("Tide", PathReading.PLAIN)).containsExactlyInAnyOrder("src/Tide.java", "src/deep/Tide.java");
        assertThat(paths("a [b]", PathReading.PLAIN)).containsExactly("a [b].txt");
        assertThat(paths("^src/[^/]+$", PathReading.REGEX)).containsExactlyInAnyOrder("src/Tide.java", "src/tide.py");
        assertThat(paths("tide not type(java) not under(docs)", PathReading.EXPRESSION))
                .containsExactly("src/tide.py");
        assertThatThrownBy(() -> paths("(", PathReading.REGEX)).isInstanceOf(InvalidQueryException.class);
        assertThatThrownBy(() -> paths("[a", PathReading.GLOB)).isInstanceOf(InvalidQueryException.class);
    }

    @Test
    void expressionsMayAskForTheContentToo() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("src/Tide.java", "class Tide { int gauge; }\n".getBytes(StandardCharsets.UTF_8))
                        .file("src/tide.py", "gauge = 1 # Tide\n".getBytes(StandardCharsets.UTF_8))
                        .file("docs/tide.md", "none\n".getBytes(StandardCharsets.UTF_8))
                        .other("tide.link", SourceTree.Kind.LINK));
        assertThat(paths("tide declares(Tide)", PathReading.EXPRESSION)).containsExactly("src/Tide.java");
        assertThat(paths("holds(gauge) not comment(tide)", PathReading.EXPRESSION))
                .containsExactly("src/Tide.java");
        assertThat(paths("tide not holds(gauge)", PathReading.EXPRESSION))
                .containsExactlyInAnyOrder("docs/tide.md", "tide.link");
        assertThat(paths("holds(gauge not comment(tide)) or link", PathReading.EXPRESSION))
                .containsExactlyInAnyOrder("src/Tide.java", "tide.link");
        assertThatThrownBy(() -> paths("holds(type(java))", PathReading.EXPRESSION))
                .isInstanceOf(InvalidQueryException.class)
                .hasMessageContaining("write it outside".substring(1));
    }

    @Test
    void foldersAreThoseThatHoldFilesOfTheScope() throws IOException {
        List<String> files = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            files.add("src/many/f" + i + ".java");
        }
        files.addAll(List.of("src/many/deep/x.md", "src-old/y.java", "z.java", "über/Ärger/a.java"));
        add(files.toArray(String[]::new));
        assertThat(search("", PathReading.FRAGMENTS, Scope.EVERYTHING, Kind.FOLDER, Order.PATH)
                        .page())
                .extracting(FileSearch.Found::path)
                .containsExactlyInAnyOrder("src", "src/many", "src/many/deep", "src-old", "über", "über/Ärger");
        assertThat(search(
                                "",
                                PathReading.FRAGMENTS,
                                Scope.EVERYTHING.with(ScopePart.TYPE, List.of("markdown")),
                                Kind.FOLDER,
                                Order.PATH)
                        .page())
                .extracting(FileSearch.Found::path)
                .containsExactlyInAnyOrder("src", "src/many", "src/many/deep");
        assertThat(search("src", PathReading.FRAGMENTS, Scope.EVERYTHING, Kind.FOLDER, Order.RELEVANCE)
                        .page()
                        .getFirst()
                        .path())
                .isEqualTo("src");
        assertThat(search("ärger", PathReading.FRAGMENTS, Scope.EVERYTHING, Kind.FOLDER, Order.RELEVANCE)
                        .page())
                .extracting(FileSearch.Found::path)
                .containsExactly("über/Ärger");
        assertThat(search("src/*", PathReading.GLOB, Scope.EVERYTHING, Kind.FOLDER, Order.PATH)
                        .page())
                .extracting(FileSearch.Found::path)
                .containsExactly("src/many");
    }

    @Test
    void ordersByEachColumnAndTheOtherWayRound() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("z/a.py", "1\n2\n3\n".getBytes(StandardCharsets.UTF_8))
                        .file("a/b.java", "1\n".getBytes(StandardCharsets.UTF_8))
                        .file("C.md", "1\n2\n".getBytes(StandardCharsets.UTF_8)));
        assertThat(ordered(new Sorting(Order.NAME, false, List.of()))).containsExactly("z/a.py", "a/b.java", "C.md");
        assertThat(ordered(new Sorting(Order.TYPE, false, List.of()))).containsExactly("a/b.java", "C.md", "z/a.py");
        assertThat(ordered(new Sorting(Order.LINES, false, List.of()))).containsExactly("z/a.py", "C.md", "a/b.java");
        assertThat(ordered(new Sorting(Order.LINES, true, List.of()))).containsExactly("a/b.java", "C.md", "z/a.py");
        assertThat(ordered(new Sorting(Order.RELEVANCE, false, List.of("r/z/a.py", "r/nowhere", "r/C.md"))))
                .containsExactly("z/a.py", "C.md", "a/b.java");
        Sorting near = new Sorting(
                Order.RELEVANCE, false, List.of("r/C.md"), Optional.of(new FileInHand("r", "a/not-yet.java")));
        assertThat(ordered(near)).containsExactly("a/b.java", "C.md", "z/a.py");
    }

    private List<String> ordered(Sorting sorting) throws IOException {
        return new FileSearch(
                        "",
                        PathReading.FRAGMENTS,
                        CaseMode.AUTO,
                        Scope.EVERYTHING,
                        Kind.FILE,
                        Sizes.ANY,
                        sorting,
                        0,
                        10)
                .run(library.context()).page().stream()
                        .map(FileSearch.Found::path)
                        .toList();
    }

    @Test
    void sizesOrdersAndPages() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("a", new byte[10])
                        .file("b", new byte[3_000])
                        .file("c", new byte[500])
                        .file("d", new byte[3_000_000]));
        FileSearch large = new FileSearch(
                "",
                PathReading.FRAGMENTS,
                CaseMode.AUTO,
                Scope.EVERYTHING,
                Kind.FILE,
                new Sizes(500, Long.MAX_VALUE),
                Sorting.by(Order.SIZE),
                0,
                2);
        FileSearch.Answer first = large.run(library.context());
        assertThat(first.files()).isEqualTo(3);
        assertThat(first.page()).extracting(FileSearch.Found::path).containsExactly("d", "b");
        assertThat(first.next()).isEqualTo(Optional.of(2));
        FileSearch second = new FileSearch(
                "",
                PathReading.FRAGMENTS,
                CaseMode.AUTO,
                Scope.EVERYTHING,
                Kind.FILE,
                new Sizes(500, Long.MAX_VALUE),
                Sorting.by(Order.SIZE),
                2,
                2);
        assertThat(second.run(library.context())).satisfies(answer -> {
            assertThat(answer.page()).extracting(FileSearch.Found::path).containsExactly("c");
            assertThat(answer.next()).isEmpty();
        });
        assertThat(first.facets().type())
                .extracting(share -> share.value() + share.files())
                .containsExactly("binary3");
    }

    @Test
    void endsWhenThereIsNoTime() throws IOException {
        MemoryTree tree = new MemoryTree();
        IntStream.range(0, 5_000).forEach(number -> tree.file("folder" + number + "/file", new byte[0]));
        library.add("r", tree);
        for (Kind kind : Kind.values()) {
            FileSearch search = new FileSearch(
                    "fo",
                    PathReading.FRAGMENTS,
                    CaseMode.AUTO,
                    Scope.EVERYTHING,
                    kind,
                    Sizes.ANY,
                    Sorting.by(Order.PATH),
                    0,
                    10);
            assertThat(search.run(library.context(Exclusions.NONE, new Budget(Duration.ZERO))))
                    .satisfies(answer -> {
                        assertThat(answer.stopped()).contains(Stop.TIME);
                        assertThat(answer.exact()).isFalse();
                        assertThat(answer.files()).isBetween(10, 4_000);
                        assertThat(answer.page()).hasSize(10);
                    });
            assertThat(search.run(library.context())).satisfies(answer -> {
                assertThat(answer.exact()).isTrue();
                assertThat(answer.files()).isEqualTo(5_000);
            });
        }
    }

    /** What is found by fragments, against the definition: all of them occur, or few do and the letters are there. */
    @Test
    void findsWhatHoldsAllFragments() throws IOException {
        long seed = Long.getLong("oddbeacon.seed", 71L);
        System.out.println("file search property test: seed " + seed);
        Random random = new Random(seed);
        String[] parts = {"tide", "Tide", "berth", "a", "B", "_x", "-", ".", "Ä", "ä", "1", "é"};
        for (int round = 0; round < 20; round++) {
            TreeSet<String> paths = new TreeSet<>();
            for (int i = 0; i < 100; i++) {
                StringBuilder path = new StringBuilder("p");
                for (int k = random.nextInt(6); k >= 0; k--) {
                    path.append(random.nextInt(4) == 0 ? "/q" : "").append(parts[random.nextInt(parts.length)]);
                }
                paths.add(path.toString());
            }
            paths.removeIf(path -> paths.stream().anyMatch(other -> other.startsWith(path + "/")));
            try (Library own = new Library(Files.createDirectory(folder.resolve("round" + round)))) {
                MemoryTree tree = new MemoryTree();
                paths.forEach(path -> tree.file(path, new byte[0]));
                own.add("r", tree);
                for (int i = 0; i < 30; i++) {
                    String text = parts[random.nextInt(parts.length)] + " " + parts[random.nextInt(parts.length)];
                    List<String> found = new FileSearch(
                                    text,
                                    PathReading.FRAGMENTS,
                                    CaseMode.AUTO,
                                    Scope.EVERYTHING,
                                    Kind.FILE,
                                    Sizes.ANY,
                                    Sorting.by(Order.RELEVANCE),
                                    0,
                                    1_000)
                            .run(own.context()).page().stream()
                                    .map(FileSearch.Found::path)
                                    .toList();
                    List<String> expected = paths.stream()
                            .filter(path -> Arrays.stream(text.split(" "))
                                    .allMatch(part ->
                                            path.toLowerCase(Locale.ROOT).contains(part.toLowerCase(Locale.ROOT))))
                            .toList();
                    assertThat(found.subList(0, expected.size()))
                            .as("seed %d, %s", seed, text)
                            .containsExactlyInAnyOrderElementsOf(expected);
                    assertThat(expected.size() >= 5 ? found.size() : expected.size())
                            .isEqualTo(expected.size());
                }
            }
        }
    }
}
