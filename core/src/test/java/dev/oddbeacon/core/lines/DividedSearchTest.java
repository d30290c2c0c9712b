package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.files.FileSearch.PathReading;
import dev.oddbeacon.core.files.FilesFound;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolQuery.NameReading;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.core.symbols.SymbolsFound;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A search of some repositories at a time, put together, is the search of all: its counts, and its page. */
class DividedSearchTest {
    private static final String[] ATOMS = {"tide", "Tide", "berth", "quay", "(", " ", "log"};
    private static final String[] FOLDERS = {"", "src", "src/main", "src/main/tide", "src/test", "docs/tide/log", "docs"
    };
    private static final String[] CLASSES = {"Berth", "Tide", "BerthPlan", "TideGauge"};
    private static final int REPOSITORIES = 12;
    private static final String RARE = "slack-water"; // a branch that one repository has
    private static final long SEED = Long.getLong("oddbeacon.seed", 20_261_202L);

    @TempDir
    Path folder;

    private final Random random = new Random(SEED);

    private <T> T one(T[] of) {
        return of[random.nextInt(of.length)];
    }

    private String text() {
        return IntStream.range(0, 1 + random.nextInt(6))
                .mapToObj(_ -> one(ATOMS) + one(ATOMS) + " " + one(ATOMS) + "\n")
                .collect(Collectors.joining());
    }

    private String within() {
        String folder = one(FOLDERS);
        return folder.isEmpty() ? "" : folder + "/";
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Repositories that have folders in common, and some that have none; each file of one may lie under one folder. */
    private Library library() throws IOException {
        Library library = new Library(Files.createTempDirectory(folder, "index"));
        for (int number = 0; number < REPOSITORIES; number++) {
            MemoryTree tree = new MemoryTree();
            String above = random.nextBoolean() ? "ferries/" : random.nextBoolean() ? "ferries/quay/" : "";
            for (int file = random.nextInt(5); file >= 0; file--) {
                String path = above + within() + "f" + file;
                tree.file(path + (random.nextBoolean() ? ".java" : ".txt"), bytes(text()));
            }
            library.add("r" + number, tree, "label" + number % 3);
            if (number == 5) {
                library.add("r5", RARE, new MemoryTree().file("src/rare.txt", bytes(text())), "label2");
            }
        }
        if (random.nextBoolean()) {
            library.merge();
        }
        return library;
    }

    @Test
    void isThatOfTheWhole() throws IOException {
        int found = 0;
        int continued = 0;
        for (int round = 0; round < 12; round++) {
            try (Library library = library()) {
                View whole = library.view();
                View seen = round % 3 == 0 ? whole.seenBy(round, name -> !name.endsWith("1")) : whole;
                RandomQueries queries = new RandomQueries(random, ATOMS, List.of(text(), text()));
                for (int i = 0; i < 40; i++) {
                    Query query = queries.query(2);
                    LineSearch search = search(
                            random.nextInt(8) == 0
                                    ? Query.and(List.of(new FileCondition.OnBranch(RARE), query))
                                    : query);
                    SearchContext context = Library.context(seen, Exclusions.NONE, new Budget(Duration.ofMinutes(5)));
                    LineAnswer all = search.run(context);
                    LineAnswer together = together(search, context);
                    assertThat(told(together))
                            .as("seed %d, round %d: %s", SEED, round, search)
                            .isEqualTo(told(all));
                    found += all.files() > 1 ? 1 : 0;
                    continued += all.next().isPresent() ? 1 : 0;
                }
            }
        }
        assertThat(found).isGreaterThan(200);
        assertThat(continued).isGreaterThan(50);
    }

    @Test
    void filesAreThoseOfTheWhole() throws IOException {
        int[] kinds = new int[3]; // few, a page, more
        for (int round = 0; round < 10; round++) {
            try (Library library = library()) {
                View seen = library.view().seenBy(round, name -> !name.endsWith("1"));
                for (int i = 0; i < 60; i++) {
                    FileSearch search = files();
                    SearchContext context = Library.context(seen, Exclusions.NONE, new Budget(Duration.ofMinutes(5)));
                    FileSearch.Answer all = search.run(context);
                    List<FilesFound> parts =
                            parts(context).stream().map(search::find).toList();
                    assertThat(parts).allMatch(part -> search.isIn(part, seen));
                    assertThat(search.answer(parts, context))
                            .as("seed %d, round %d: %s", SEED, round, search)
                            .isEqualTo(all);
                    kinds[all.next().isPresent() ? 2 : all.files() < 5 ? 0 : 1]++;
                }
            }
        }
        assertThat(kinds).matches(counts -> Arrays.stream(counts).allMatch(count -> count > 50));
    }

    @Test
    void symbolsAreThoseOfTheWhole() throws IOException {
        int found = 0;
        int continued = 0;
        for (int round = 0; round < 10; round++) {
            try (Library library = declaring()) {
                View seen = library.view().seenBy(round, name -> !name.endsWith("1"));
                for (int i = 0; i < 60; i++) {
                    SymbolSearch search = symbols();
                    SearchContext context = Library.context(seen, Exclusions.NONE, new Budget(Duration.ofMinutes(5)));
                    SymbolAnswer all = search.run(context);
                    if (!search.canBeDivided()) {
                        continue;
                    }
                    List<SymbolsFound> parts =
                            parts(context).stream().map(search::find).toList();
                    assertThat(parts).allMatch(part -> search.isIn(part, seen));
                    assertThat(search.answer(parts, context))
                            .as("seed %d, round %d: %s", SEED, round, search)
                            .isEqualTo(all);
                    found += all.symbols() > 0 ? 1 : 0;
                    continued += all.next().isPresent() ? 1 : 0;
                }
            }
        }
        assertThat(found).isGreaterThan(200);
        assertThat(continued).isGreaterThan(80);
    }

    /** Repositories with classes, whose fields and methods use one another. */
    private Library declaring() throws IOException {
        Library library = new Library(Files.createTempDirectory(folder, "index"));
        for (int number = 0; number < REPOSITORIES; number++) {
            MemoryTree tree = new MemoryTree();
            for (int file = random.nextInt(4); file >= 0; file--) {
                String members = IntStream.range(0, 1 + random.nextInt(3))
                        .mapToObj(_ -> "  int " + name() + ";\n  void " + name() + "() { " + name() + " = " + name()
                                + "(); }\n")
                        .collect(Collectors.joining());
                tree.file(within() + "F" + file + ".java", bytes("class " + one(CLASSES) + " {\n" + members + "}\n"));
            }
            library.add("r" + number, tree);
        }
        if (random.nextBoolean()) {
            library.merge();
        }
        return library;
    }

    private String name() {
        return one(new String[] {"tide", "tideGauge", "berthOf", "assignBerth", "quay"});
    }

    private SymbolSearch symbols() {
        NameReading reading = one(NameReading.values());
        String text = switch (reading) {
            case FRAGMENTS -> one(new String[] {"tide", "berth", "gauge ti", "aB", "tg", "Berth tide"});
            case PLAIN -> one(new String[] {"tide", "Berth", "Berth.tide", "quay"});
            case REGEX -> one(new String[] {"t.*e", "[bq].*", "Berth"});
            case GLOB -> one(new String[] {"tide*", "*Berth", "*"});
            case EXPRESSION -> one(new String[] {"tide and not gauge", "berth and holds(quay)", "declares(quay)"});
        };
        return new SymbolSearch(
                SymbolQuery.of(text, reading, CaseMode.AUTO, Scope.EVERYTHING),
                one(SymbolRole.values()),
                random.nextInt(4) == 0 ? Set.of(Kind.METHOD, Kind.CLASS) : Set.of(),
                Set.of(),
                random.nextInt(2) * random.nextInt(20),
                1 + random.nextInt(15),
                true);
    }

    private FileSearch files() {
        PathReading reading = one(PathReading.values());
        String text = switch (reading) {
            case FRAGMENTS, PLAIN, REGEX ->
                one(new String[] {"", "f1", "tide", "src f", "srmai", "fejava", "sctide", "f[23]"});
            case GLOB -> one(new String[] {"*.java", "**/main/**", "f?.txt"});
            case EXPRESSION -> random.nextBoolean() ? "f2 or holds(tide berth)" : "not main and holds(log)";
        };
        FileSearch.Sorting sorting = new FileSearch.Sorting(
                one(FileSearch.Order.values()),
                random.nextInt(3) == 0,
                List.of("r2/src/f1.java", "r3/ferries/docs/f0.txt", "r3/src/f1.txt"),
                random.nextInt(3) == 0
                        ? Optional.of(new FileInHand("r4", "ferries/src/main/f9.java"))
                        : Optional.empty());
        return new FileSearch(
                text,
                reading,
                CaseMode.AUTO,
                random.nextInt(6) == 0 ? Scope.EVERYTHING.with(ScopePart.BRANCH, List.of(RARE)) : Scope.EVERYTHING,
                one(FileSearch.Kind.values()),
                random.nextInt(4) == 0 ? new FileSearch.Sizes(0, 40) : FileSearch.Sizes.ANY,
                sorting,
                random.nextInt(2) * random.nextInt(10),
                1 + random.nextInt(12));
    }

    private LineSearch search(Query query) {
        return new LineSearch(
                CompiledQuery.of(query, CaseMode.AUTO),
                1 + random.nextInt(12),
                random.nextInt(2),
                LineAnswer.Position.START,
                true,
                one(LineSearch.Order.values()),
                random.nextBoolean() ? LineSearch.Show.LINES : LineSearch.Show.FILES,
                random.nextBoolean() ? LineSearch.ALL : 1 + random.nextInt(3),
                Optional.empty());
    }

    /** Parts of all repositories, by chance. */
    private List<SearchContext> parts(SearchContext context) {
        int number = 1 + random.nextInt(5);
        Map<String, Integer> parts = IntStream.range(0, REPOSITORIES)
                .mapToObj(repository -> "r" + repository)
                .collect(Collectors.toMap(Function.identity(), _ -> random.nextInt(number)));
        return IntStream.range(0, number)
                .mapToObj(part -> context.of(context.view().of(name -> parts.get(name) == part)))
                .toList();
    }

    /** The search of several parts, each by itself, and what they make together. */
    private LineAnswer together(LineSearch search, SearchContext context) {
        List<LineCounts> counts = new ArrayList<>();
        LongStream.Builder first = LongStream.builder();
        for (SearchContext part : parts(context)) {
            LineAnswer answer = search.run(part);
            counts.add(answer.counts());
            answer.first()
                    .map(place -> place(part.view(), place, context.view()))
                    .forEach(first::add);
        }
        return search.pageOf(first.build().sorted().toArray(), context).with(LineCounts.merged(counts));
    }

    /** A place of one view in another. */
    private static long place(View from, long place, View to) {
        int branch = (int) (place >>> 32);
        String path = from.snapshot(branch).path((int) place);
        int there = to.branchNumber(
                        from.branch(branch).repository(), from.branch(branch).name())
                .orElseThrow();
        return (long) there << 32 | to.snapshot(there).find(path).orElseThrow();
    }

    private static String told(LineAnswer answer) {
        return told(answer.counts()) + answer.page() + answer.next();
    }

    private static String told(LineCounts counts) {
        return counts.hits() + " " + counts.files() + " " + counts.repositories() + " " + counts.exact() + " "
                + counts.stopped() + " " + counts.facets().facets();
    }

    @Test
    void onlyTheSameTextHasTheSameFingerprint() throws IOException {
        try (Library library = library()) {
            View before = library.view();
            View quay = before.of("r1"::equals);
            View tide = before.of("r2"::equals);
            assertThat(quay.fingerprint())
                    .isEqualTo(before.of("r1"::equals).fingerprint())
                    .isEqualTo(before.seenBy("some", name -> !name.equals("r0"))
                            .of("r1"::equals)
                            .fingerprint())
                    .isNotEqualTo(tide.fingerprint())
                    .isNotEqualTo(before.fingerprint());
            library.add("r2", new MemoryTree().file("new.txt", bytes("tide\n")));
            library.merge();
            assertThat(library.view().of("r1"::equals).fingerprint()).isEqualTo(quay.fingerprint());
            assertThat(library.view().of("r2"::equals).fingerprint()).isNotEqualTo(tide.fingerprint());
        }
    }
}
