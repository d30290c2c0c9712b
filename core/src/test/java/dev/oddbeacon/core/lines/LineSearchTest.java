package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.lines.LineAnswer.Position;
import dev.oddbeacon.core.lines.LineSearch.Order;
import dev.oddbeacon.core.lines.LineSearch.Show;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.View;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LineSearchTest {
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

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private LineAnswer search(String text, Scope scope, int context) {
        return search(
                new TextQuery(text, Reading.PLAIN, CaseMode.AUTO, false),
                scope,
                context,
                new Budget(Duration.ofMinutes(1)));
    }

    private LineAnswer search(TextQuery query, Scope scope, int context, Budget budget) {
        CompiledQuery compiled =
                CompiledQuery.of(scope.around(query.understand(false).query()), CaseMode.AUTO);
        return new LineSearch(compiled, 100, context, Position.START, true, Order.PATH, Show.LINES)
                .run(library.context(Exclusions.NONE, budget));
    }

    @Test
    void excerptsThatTouchAreMerged() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("1\nhit\n3\n4\nhit\n6\n7\n8\n9\nhit\n")));
        List<Excerpt> excerpts =
                search("hit", Scope.EVERYTHING, 1).page().getFirst().excerpts();
        assertThat(excerpts.stream()
                        .map(excerpt -> excerpt.lines().stream()
                                .map(Excerpt.Line::number)
                                .toList()))
                .containsExactly(List.of(1, 2, 3, 4, 5, 6), List.of(9, 10));
        assertThat(search("hit", Scope.EVERYTHING, 0).page().getFirst().excerpts())
                .hasSize(3);
    }

    @Test
    void theScopeNarrowsByRepositoryLabelBranchAndFolder() throws IOException {
        MemoryTree tree = new MemoryTree().file("src/a", bytes("tern")).file("doc/a", bytes("tern"));
        library.add("one", tree, "birds");
        library.add("two", tree);
        library.add("two", "side", new MemoryTree().file("only", bytes("tern")), "birds");
        assertThat(search("tern", Scope.EVERYTHING, 0).hits())
                .as("default branches")
                .isEqualTo(4);
        assertThat(search("tern", Scope.EVERYTHING.with(ScopePart.REPO, List.of("t*")), 0)
                        .hits())
                .isEqualTo(2);
        assertThat(search("tern", Scope.EVERYTHING.with(ScopePart.LABEL, List.of("birds")), 0)
                        .repositories())
                .isEqualTo(1);
        assertThat(search("tern", Scope.EVERYTHING.with(ScopePart.BRANCH, List.of("side")), 0)
                        .hits())
                .isEqualTo(1);
        assertThat(search("tern", Scope.EVERYTHING.with(ScopePart.UNDER, List.of("src", "only")), 0)
                        .hits())
                .isEqualTo(2);
        assertThatThrownBy(() -> search("tern", Scope.EVERYTHING.with(ScopePart.BRANCH, List.of("none")), 0))
                .isInstanceOf(InvalidQueryException.class);
    }

    @Test
    void aSearchThatIsCancelledOrTooLongSaysSo() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("tern\n".repeat(100_000))));
        Budget cancelled = new Budget(Duration.ofMinutes(1));
        cancelled.cancel();
        TextQuery query = new TextQuery("tern", Reading.PLAIN, CaseMode.AUTO, false);
        assertThat(search(query, Scope.EVERYTHING, 0, cancelled).stopped()).hasValue(Stop.CANCELLED);
        LineAnswer late = search(query, Scope.EVERYTHING, 0, new Budget(Duration.ZERO));
        assertThat(late.stopped()).hasValue(Stop.TIME);
        assertThat(late.exact()).isFalse();
    }

    @Test
    void aPageThatIsCutShortSaysSo() throws IOException {
        MemoryTree tree = new MemoryTree();
        for (int i = 0; i < 60; i++) {
            tree.file("f" + i, bytes("tern a\nplover\nplover\n".repeat(200)));
        }
        library.add("r", tree);
        LineSearch search = new LineSearch(
                CompiledQuery.of(new TextClause.Text("tern"), CaseMode.AUTO),
                10_000,
                2,
                Position.START,
                true,
                Order.PATH,
                Show.LINES);
        long start = System.nanoTime();
        int whole = search.run(library.context()).page().size();
        long most = System.nanoTime() - start;
        assertThat(whole).isGreaterThan(20);
        for (int i = 0; i < 400; i++) { // that end before, while, and after the page is made
            LineAnswer answer =
                    search.run(library.context(Exclusions.NONE, new Budget(Duration.ofNanos(most * i / 400))));
            assertThat(answer.page().size() == whole || answer.stopped().isPresent())
                    .as("%d of %d files", answer.page().size(), whole)
                    .isTrue();
        }
    }

    @Test
    void whatHoldsASecondTextIsNotSaidToBeNoneWhenThereWasNoTimeToLook() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("tern\nauk\n")));
        TextQuery query = new TextQuery("tern and holds(auk)", Reading.EXPRESSION, CaseMode.AUTO, false);
        assertThat(search(query, Scope.EVERYTHING, 0, new Budget(Duration.ofMinutes(1)))
                        .exact())
                .isTrue();
        LineAnswer late = search(query, Scope.EVERYTHING, 0, new Budget(Duration.ZERO));
        assertThat(late.exact()).isFalse();
        assertThat(late.stopped()).hasValue(Stop.TIME);
    }

    @Test
    void ofAVeryLongLineThePartAroundTheMatchIsShown() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("é".repeat(50_000) + "tern" + "🚢".repeat(5_000) + "\n")));
        Excerpt.Line line = search("tern", Scope.EVERYTHING, 0)
                .page()
                .getFirst()
                .excerpts()
                .getFirst()
                .lines()
                .getFirst();
        assertThat(line.text().length()).isBetween(1_990, 2_000);
        assertThat(line.matches()).containsExactly(new Excerpt.Span(50_000, 50_004));
        assertThat(line.text().substring(50_000 - line.textStart())).startsWith("tern🚢");
        assertThat(line.text()).doesNotEndWith("\uD83D");
    }

    @Test
    void facetsSayWhereTheHitsAre() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("lib/a/x.java", bytes("tern\ntern"))
                        .file("lib/a/y.py", bytes("tern"))
                        .file("lib/b/z.py", bytes("tern"))
                        .file("lib/c", bytes("gannet")));
        Facets facets = search("tern", Scope.EVERYTHING, 0).facets();
        assertThat(facets.folder()).containsExactly(new Facets.Share("/lib/a", 2, 3), new Facets.Share("/lib/b", 1, 1));
        assertThat(facets.type()).containsExactly(new Facets.Share("python", 2, 2), new Facets.Share("java", 1, 2));
        assertThat(facets.repository()).containsExactly(new Facets.Share("r", 3, 4));
        assertThat(facets.spread())
                .containsExactly(new Facets.Spread("r", "/lib/a", 2, 3), new Facets.Spread("r", "/lib/b", 1, 1));
    }

    private static CompiledQuery query(String text, Reading reading) {
        return CompiledQuery.of(
                new TextQuery(text, reading, CaseMode.AUTO, false)
                        .understand(false)
                        .query(),
                CaseMode.AUTO);
    }

    private LineAnswer ranked(String text, int limit, boolean exact) {
        return new LineSearch(query(text, Reading.PLAIN), limit, 0, Position.START, exact, Order.RELEVANCE, Show.LINES)
                .run(library.context());
    }

    private List<String> paths(LineAnswer answer) {
        return answer.page().stream()
                .map(file -> library.view().snapshot(0).path(file.file()))
                .toList();
    }

    @Test
    void relevancePutsTheFileThatIsMeantFirst() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("a/other.java", bytes("tern tern"))
                        .file("doc/tern.md", bytes("tern tern tern"))
                        .file("src/Tern.java", bytes("class Tern {}"))
                        .file("test/TernTest.java", bytes("class TernTest { Tern one; }"))
                        .file("vendor/tern.js", bytes("// terns")));
        LineAnswer answer = ranked("tern", 100, false);
        assertThat(paths(answer))
                .containsExactly(
                        "src/Tern.java", "doc/tern.md", "test/TernTest.java", "a/other.java", "vendor/tern.js");
        assertThat(answer.page().getFirst().relevance().orElseThrow().reasons())
                .containsExactly("it declares it, as class (+60)", "the file is named so (+40)", "1 folder deep (-1)");
        assertThat(answer.page().getFirst().relevance().orElseThrow().points()).isEqualTo(99);
    }

    @Test
    void aDeclarationComesBeforeWhatOnlyUsesItAndBeforeItsPrototype() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("a.c", bytes("void go(void) { gauge_read(1); gauge_read(2); gauge_read(3); }"))
                        .file("b.txt", bytes("gauge_read tells a level. gauge_read, gauge_read.\n"))
                        .file("c.h", bytes("int gauge_read(int number);\n"))
                        .file("m/n/o/p/gauges.c", bytes("int gauge_read(int number) { return number; }")));
        assertThat(paths(ranked("gauge_read", 100, true))).containsExactly("m/n/o/p/gauges.c", "a.c", "c.h", "b.txt");
        assertThat(paths(ranked("gauge_read(", 100, true)))
                .as("a name with something beside it")
                .containsExactly("m/n/o/p/gauges.c", "a.c", "c.h");
        assertThat(paths(ranked("gauge_re", 100, true)))
                .as("a name that is not typed to its end")
                .startsWith("c.h", "m/n/o/p/gauges.c");
    }

    @Test
    void severalWordsAreTheNamesThatAreMadeOfThem() throws IOException {
        String comment = "/* the mooring buffer */ ";
        library.add(
                "r",
                new MemoryTree()
                        .file("a.md", bytes("mooring buffer"))
                        .file("b.java", bytes(comment + "class Rule { int buffer; }"))
                        .file("c/MooringBuffer.java", bytes(comment + "class MooringBuffer {}"))
                        .file("c/mooring-buffer.md", bytes("mooring buffer"))
                        .file("c/x.c", bytes(comment + "int mooring_buffer;"))
                        .file("d/01-mooring-buffer.sql", bytes("-- mooring buffer")));
        assertThat(paths(ranked("mooring buffer", 100, true)))
                .containsExactly(
                        "c/MooringBuffer.java",
                        "c/x.c",
                        "c/mooring-buffer.md",
                        "d/01-mooring-buffer.sql",
                        "b.java",
                        "a.md");
    }

    @Test
    void whatMustNotStandInAFileSaysNothingForIt() throws IOException {
        library.add("r", new MemoryTree().file("a/chart.txt", bytes("tide")).file("b.txt", bytes("tide")));
        CompiledQuery query = query("tide not chart", Reading.EXPRESSION);
        assertThat(paths(new LineSearch(query, 9, 0, Position.START, true, Order.RELEVANCE, Show.LINES)
                        .run(library.context())))
                .containsExactly("b.txt", "a/chart.txt");
    }

    @Test
    void whatIsCloseToAFileInHandComesFirst() throws IOException {
        library.add(
                "far", new MemoryTree().file("src/plan/surge.c", bytes("surge")).file("surge.c", bytes("int surge;")));
        library.add(
                "here",
                new MemoryTree()
                        .file("docs/note.md", bytes("surge"))
                        .file("src/a.c", bytes("surge"))
                        .file("src/plan/own.c", bytes("surge"))
                        .file("src/plan/deep/a.c", bytes("surge"))
                        .file("src/plan/b.c", bytes("surge"))
                        .file("src/plan/surge.c", bytes("surge"))
                        .file("src/planned/a.c", bytes("surge"))
                        .file("top.c", bytes("surge")));
        Optional<FileInHand> near = Optional.of(new FileInHand("here", "src/plan/own.c"));
        View view = library.context().view();
        List<String> found = new ArrayList<>();
        Optional<Position> from = Optional.of(Position.START);
        while (from.isPresent()) {
            LineAnswer page = new LineSearch(
                            query("surge", Reading.PLAIN),
                            3,
                            0,
                            from.get(),
                            true,
                            Order.RELEVANCE,
                            Show.LINES,
                            LineSearch.ALL,
                            near)
                    .run(library.context());
            page.page()
                    .forEach(file -> found.add(view.branch(file.branchNumber()).repository() + "/"
                            + view.snapshot(file.branchNumber()).path(file.file())));
            from = page.next();
        }
        assertThat(found)
                .containsExactly(
                        "here/src/plan/own.c",
                        "here/src/plan/surge.c", // of those equally close the likeliest
                        "here/src/plan/b.c",
                        "here/src/a.c",
                        "here/src/plan/deep/a.c",
                        "here/top.c",
                        "here/src/planned/a.c",
                        "here/docs/note.md",
                        "far/surge.c",
                        "far/src/plan/surge.c");
    }

    @Test
    void ofAFileWithManyHitsTheDeclarationIsShownAndOtherFilesBesideIt() throws IOException {
        String calls = "gauge_read(1);\n".repeat(40);
        library.add(
                "r",
                new MemoryTree()
                        .file("a.c", bytes("void go() {\n" + calls + "}\nint gauge_read(int n) {\n" + calls + "}\n"))
                        .file("b.c", bytes("void go() {\n" + calls + "}\n"))
                        .file("c.c", bytes("void go() { gauge_read(2); }\n")));
        List<LineAnswer> pages = new ArrayList<>();
        Optional<Position> from = Optional.of(Position.START);
        while (from.isPresent()) {
            LineAnswer page = new LineSearch(
                            query("gauge_read", Reading.PLAIN),
                            12,
                            0,
                            from.get(),
                            true,
                            Order.RELEVANCE,
                            Show.LINES,
                            10,
                            Optional.empty())
                    .run(library.context());
            pages.add(page);
            from = page.next();
        }
        assertThat(pages.stream().map(this::paths)).containsExactly(List.of("a.c"), List.of("b.c", "c.c"));
        assertThat(pages.getFirst().hits()).isEqualTo(122);
        assertThat(pages.stream()
                        .flatMap(page -> page.page().stream())
                        .map(file -> file.hits() + ": "
                                + file.excerpts().stream()
                                        .flatMap(excerpt -> excerpt.lines().stream())
                                        .map(line -> line.number() + (line.declares() ? "!" : ""))
                                        .toList()))
                .containsExactly(
                        "81: [41, 43!, 44, 45, 46, 47, 48, 49, 50, 51]",
                        "40: [2, 3, 4, 5, 6, 7, 8, 9, 10, 11]",
                        "1: [1]");
    }

    @Test
    void theBestPageIsFullBeforeAllIsCounted() throws IOException {
        MemoryTree tree = new MemoryTree();
        for (int i = 0; i < 20_000; i++) {
            tree.file("f" + i + ".c", bytes("void go(void) { gauge_read(1); }"));
        }
        library.add("r", tree.file("z/z/last.c", bytes("int gauge_read(int number) { return number; }")));
        LineAnswer answer = ranked("gauge_read", 3, false);
        assertThat(paths(answer).getFirst()).isEqualTo("z/z/last.c");
        assertThat(answer.exact()).isFalse();
        assertThat(answer.explanation().filesVerified()).isLessThan(20_000);
        assertThat(ranked("gauge_read", 3, true).hits()).isEqualTo(20_001);
    }

    @Test
    void secondLooksOfferOnlyWhatFindsSomething() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("The arctic tern flies\nfar")));
        assertThat(looks("TERN", CaseMode.MATCH, Scope.EVERYTHING)).containsExactly("ignoring case");
        assertThat(looks("tern arctic", CaseMode.AUTO, Scope.EVERYTHING))
                .containsExactly("the words apart, on one line", "the words apart, anywhere in a file");
        assertThat(looks("far arctic", CaseMode.AUTO, Scope.EVERYTHING))
                .containsExactly("the words apart, anywhere in a file");
        assertThat(looks("arctic.*flies", CaseMode.AUTO, Scope.EVERYTHING)).containsExactly("as a regular expression");
        assertThat(looks("tern", CaseMode.AUTO, Scope.EVERYTHING.with(ScopePart.UNDER, List.of("src"))))
                .containsExactly("in all folders");
        assertThat(looks("artcic", CaseMode.AUTO, Scope.EVERYTHING))
                .containsExactly("\u201Carctic\u201D for \u201Cartcic\u201D");
        assertThat(looks("gannet", CaseMode.AUTO, Scope.EVERYTHING)).isEmpty();
    }

    @Test
    void secondLooksReadOtherHabitsAndFilledSentences() throws IOException {
        library.add(
                "r",
                new MemoryTree()
                        .file("birds.java", bytes("String said = \"The \" + bird + \" flies until \" + hour;"))
                        .file("birds.properties", bytes("seen=Seen by {0} on {1}, in person")));
        assertThat(looks("The tern flies until noon", CaseMode.AUTO, Scope.EVERYTHING))
                .containsExactly("where values are filled in");
        assertThat(looks("Seen by Edda on Monday, in person", CaseMode.AUTO, Scope.EVERYTHING))
                .containsExactly("where values are filled in");
        assertThat(looks("flies -gannet", CaseMode.AUTO, Scope.EVERYTHING))
                .contains("as the expression flies not gannet");
        assertThat(looks("lang:java flies", CaseMode.AUTO, Scope.EVERYTHING))
                .contains("as the expression type(java) flies");
        assertThat(looks("lang:java person", CaseMode.AUTO, Scope.EVERYTHING)).isEmpty();
    }

    private List<String> looks(String text, CaseMode caseMode, Scope scope) {
        return new SecondLooks(new TextQuery(text, Reading.PLAIN, caseMode, false), scope)
                .run(library.context()).stream().map(SecondLooks.Look::change).toList();
    }

    @Test
    void expensiveSearchesStopInTimeAndLeaveRoomForCheapOnes() throws Exception {
        StringBuilder text = new StringBuilder();
        new java.util.Random(3).ints(8_000_000, 'a', 'c').forEach(c -> text.append((char) c));
        library.add("r", new MemoryTree().file("f", bytes(text.toString())).file("g", bytes("tern")));
        CompiledQuery expensive = CompiledQuery.of(
                new TextQuery("[ab]*a[ab]{40}a[ab]{20}a[ab]{20}x", Reading.REGEX, CaseMode.MATCH, false)
                        .understand(false)
                        .query(),
                CaseMode.AUTO);
        List<Budget> budgets = new ArrayList<>();
        List<java.util.concurrent.Future<LineAnswer>> running = new ArrayList<>();
        try (var callers = java.util.concurrent.Executors.newVirtualThreadPerTaskExecutor()) {
            for (int i = 0; i < 32; i++) {
                Budget budget = new Budget(Duration.ofMinutes(5));
                budgets.add(budget);
                running.add(callers.submit(
                        () -> new LineSearch(expensive, 100, 0, Position.START, true, Order.PATH, Show.LINES)
                                .run(library.context(Exclusions.NONE, budget))));
            }
            Thread.sleep(200);
            assertThat(search("tern", Scope.EVERYTHING, 0).hits()).isEqualTo(1);
            budgets.forEach(Budget::cancel);
            for (var each : running) {
                assertThat(each.get(20, java.util.concurrent.TimeUnit.SECONDS).stopped())
                        .hasValue(Stop.CANCELLED);
            }
        }
    }
}
