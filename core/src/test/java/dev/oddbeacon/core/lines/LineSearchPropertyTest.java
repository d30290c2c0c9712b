package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.lines.LineAnswer.Position;
import dev.oddbeacon.core.lines.LineSearch.Order;
import dev.oddbeacon.core.lines.LineSearch.Show;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionParser;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Random little repositories times random searches of all kinds, against {@link NaiveSearch}. */
class LineSearchPropertyTest {
    private static final String[] ATOMS = {
        "{0}",
        "%s",
        "\" + x + \"",
        " berth ",
        " the tide ",
        "4",
        "42",
        "-7",
        ".5",
        "1_0",
        "0x1F",
        "2e1",
        "-",
        ".",
        "berth",
        "Berth",
        "TIDE",
        "tide",
        "k",
        "K",
        "s",
        "\u017F",
        "\u212A",
        "a",
        "b",
        "ab",
        "\u00DF",
        "\u1E9E",
        "\u03C3",
        "\u03C2",
        "\u03A3",
        "\u0434",
        "\u0414",
        "_",
        "1",
        " ",
        "  ",
        "\t",
        ".",
        "(",
        ")",
        "->",
        "\u20AC",
        "\u26F4",
        "\uD83D\uDEA2",
        "\uD801\uDC00",
        "\uD801\uDC28",
        "\n",
        "\n",
        "\r\n",
        "\r",
        "\u0000x",
        "\u0130",
        "i",
        "\u0131",
        "e\u0301",
        "\"",
        "\\",
        "/",
        ",",
        "/* ",
        " */",
        "// ",
        "class Berth {",
        "int tide;",
        "}",
        "void ab() {"
    };
    private static final String[] FOLDERS = {"", "dir/", "test/"};
    private static final String[] ENDINGS = {"", ".java", ".java", ".md"};
    private static final int ROUNDS = 60;
    private static final long SEED = Long.getLong("oddbeacon.seed", 20_260_101L);

    @TempDir
    Path folder;

    @Test
    void findsExactlyTheLinesThatANaiveEvaluationFinds() {
        System.out.println("line search property test: seed " + SEED);
        int cases = IntStream.range(0, ROUNDS).parallel().map(this::round).sum();
        System.out.println("line search property test: " + cases + " cases");
    }

    /** One library and many searches; every fifteenth has long texts. @return how many searches */
    private int round(int round) {
        Random random = new Random(SEED + round);
        boolean longTexts = round % 15 == 0;
        Map<String, String> files = files(random, longTexts);
        RandomQueries queries = new RandomQueries(
                random,
                ATOMS,
                files.values().stream().filter(text -> text.length() < 1_000).toList());
        int searches = longTexts ? 20 : 90;
        try (Library library = library(files, round)) {
            for (int i = 0; i < searches; i++) {
                Query query = query(queries, longTexts);
                CaseMode caseMode = CaseMode.values()[random.nextInt(3)];
                assertThat(found(library.view(), query, caseMode, random))
                        .as(
                                "seed %d, round %d, %s, %s in %s",
                                SEED, round, caseMode, ExpressionPrinter.print(query), longTexts ? "long texts" : files)
                        .isEqualTo(expected(files, query, caseMode));
            }
        } catch (Exception e) {
            throw new IllegalStateException("seed " + SEED + ", round " + round, e);
        }
        return searches;
    }

    /** Over long texts only what the naive evaluation does in reasonable time. */
    private static Query query(RandomQueries queries, boolean longTexts) {
        Query query = queries.query(longTexts ? 0 : 3);
        while (longTexts && !(query instanceof TextClause.Text || query instanceof TextClause.Pattern)) {
            query = queries.query(0);
        }
        return query;
    }

    @Test
    void anExpressionThatIsPrintedIsReadAsTheSameTree() {
        System.out.println("expression property test: seed " + SEED);
        Random random = new Random(SEED);
        for (Query made : new RandomQueries(random, ATOMS, List.of()).many(4_000)) {
            String printed = ExpressionPrinter.print(made);
            ExpressionParser.Parsed parsed = ExpressionParser.parse(printed);
            assertThat(parsed.mistakes()).as(printed).isEmpty();
            assertThat(ExpressionParser.parse(ExpressionPrinter.print(parsed.query()))
                            .query())
                    .as(printed)
                    .isEqualTo(parsed.query());
            assertThat(parsed.query()).as(printed).isEqualTo(made);
        }
    }

    private Library library(Map<String, String> files, int round) throws Exception {
        Library library = new Library(Files.createDirectory(folder.resolve("round" + round)));
        Map<String, MemoryTree> trees = new TreeMap<>();
        trees.put("x", new MemoryTree());
        files.forEach((path, text) -> trees.computeIfAbsent(path.substring(0, 1), name -> new MemoryTree())
                .file(path.substring(2), text.getBytes(StandardCharsets.UTF_8)));
        for (Map.Entry<String, MemoryTree> tree : trees.entrySet()) {
            boolean isX = tree.getKey().equals("x");
            library.add(
                    new Branch(
                            tree.getKey(),
                            isX ? Set.of("onboard") : Set.of(),
                            "main",
                            "0".repeat(40),
                            isX ? Instant.EPOCH : NaiveSearch.Y_CHANGED,
                            true),
                    tree.getValue());
        }
        return library;
    }

    private static Map<String, String> files(Random random, boolean longTexts) {
        Map<String, String> files = new LinkedHashMap<>();
        int count = 1 + random.nextInt(longTexts ? 3 : 8);
        for (int i = 0; i < count; i++) {
            String ending = ENDINGS[random.nextInt(ENDINGS.length)];
            String path =
                    "xy".charAt(random.nextInt(2)) + "/" + FOLDERS[random.nextInt(FOLDERS.length)] + "f" + i + ending;
            // a text that stands twice is analysed once, so both files are of one type
            Optional<String> before = files.keySet().stream()
                    .filter(other -> other.endsWith("f" + other.replaceAll(".*f|\\..*", "") + ending))
                    .findFirst()
                    .map(files::get);
            String text = random.nextInt(4) == 0 && before.isPresent() ? before.get() : text(random, longTexts);
            // outside of strings a backslash is no Java, and what becomes of the letter after it means nothing
            text = ending.equals(".java") ? text.replace("\\", "") : text;
            files.put(path, text);
        }
        return files;
    }

    private static String text(Random random, boolean isLong) {
        int atoms = random.nextInt(8) == 0
                ? 0
                : isLong ? 20_000 : random.nextInt(50); // long: several pieces, some lines longer than one
        boolean longLines = isLong && random.nextInt(3) == 0;
        StringBuilder text = new StringBuilder(" ".repeat(atoms > 1_000 ? 8_000 : 0));
        for (int i = 0; i < atoms; i++) {
            String atom = ATOMS[random.nextInt(ATOMS.length)];
            boolean rare = atom.contains("\u0000") && text.length() < 8_000
                    || longLines && atom.contains("\n") && random.nextInt(500) > 0;
            text.append(rare ? " " : atom);
        }
        return text.toString();
    }

    private static Map<String, List<Integer>> expected(Map<String, String> files, Query query, CaseMode caseMode) {
        Map<String, List<Integer>> expected = new TreeMap<>();
        files.forEach((path, text) -> {
            NaiveSearch naive = new NaiveSearch(path.substring(0, 1), path.substring(2), text);
            if (naive.holds(query, caseMode)) {
                expected.put(path, naive.hitLines(query, caseMode));
            }
        });
        return expected;
    }

    private static BitSet odd(String set, SnapshotReader snapshot) {
        assertThat(set).isEqualTo("odd");
        BitSet odd = new BitSet();
        snapshot.forEachPath((path, file) -> odd.set(file, NaiveSearch.isOdd(path)));
        return odd;
    }

    private record Ranked(int points, long place) {}

    /** All pages of a search, put together. */
    private static Map<String, List<Integer>> found(View view, Query query, CaseMode caseMode, Random random) {
        Map<String, List<Integer>> found = new TreeMap<>();
        CompiledQuery compiled = CompiledQuery.of(query, caseMode);
        Optional<Position> from = Optional.of(Position.START);
        int limit = random.nextBoolean() ? 1_000_000 : 1 + random.nextInt(2_000);
        int context = random.nextInt(3);
        Order order = Order.values()[random.nextInt(3)];
        List<Ranked> ranked = new ArrayList<>();
        while (from.isPresent()) {
            LineAnswer answer = new LineSearch(compiled, limit, context, from.get(), true, order, Show.LINES)
                    .run(Library.context(view, LineSearchPropertyTest::odd, new Budget(Duration.ofMinutes(1))));
            assertThat(answer.exact()).isTrue();
            for (LineAnswer.FileHits file : answer.page()) {
                String path = view.branch(file.branchNumber()).repository() + "/"
                        + view.snapshot(file.branchNumber()).path(file.file());
                file.relevance()
                        .ifPresent(relevance -> ranked.add(
                                new Ranked(relevance.points(), (long) file.branchNumber() << 32 | file.file())));
                List<Integer> lines = found.computeIfAbsent(path, p -> new ArrayList<>());
                file.excerpts()
                        .forEach(excerpt -> excerpt.lines().stream()
                                .filter(Excerpt.Line::isHit)
                                .forEach(line -> lines.add(line.number())));
            }
            from = answer.next();
            if (from.isEmpty()) {
                assertThat(answer.hits())
                        .as(ExpressionPrinter.print(query) + " " + found)
                        .isEqualTo(found.values().stream().mapToInt(List::size).sum());
                assertThat(answer.files()).isEqualTo(found.size());
            }
        }
        assertThat(ranked).hasSizeGreaterThanOrEqualTo(order == Order.RELEVANCE ? found.size() : 0);
        assertThat(ranked)
                .as("the best first, over all pages")
                .isSortedAccordingTo(
                        Comparator.comparingInt(Ranked::points).reversed().thenComparingLong(Ranked::place));
        return found;
    }
}
