package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.commits.CommitAnswer;
import dev.oddbeacon.core.commits.CommitSearch;
import dev.oddbeacon.core.commits.CommitsFound;
import dev.oddbeacon.core.commits.LinesOverTime;
import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is asked of the past of some repositories at a time, put together, is what all of them answer. */
class DividedPastTest {
    private static final long SEED = Long.getLong("oddbeacon.seed", 20_261_202L);
    private static final int LONG = 6; // repositories with many commits
    private static final int ALL = 60;
    private static final String[] WORDS = {"tide", "berth", "gauge", "mooring", "0", "call", "return"};
    private static final String[] OTHERS = {
        "by(ada)",
        "touches(src/**)",
        "touches(docs/*) and not by(bo)",
        "after(2014-06)",
        "before(2014-05-20)",
        "repo(r1*)",
        "not repo(r2)",
        "label(odd)",
        "branch(main)"
    };

    @TempDir
    private static Path folder;

    private static SearchPool pool;
    private static View view;
    private static String rare;

    private final Random random = new Random(SEED);

    /** Some are the same, so that commits of several were made in the same second. */
    @BeforeAll
    static void index() throws IOException, InterruptedException {
        pool = new SearchPool(2);
        List<Path> segments = new ArrayList<>();
        List<ViewBuilder.Wanted> branches = new ArrayList<>();
        Map<String, List<Path>> pasts = new HashMap<>();
        for (int number = 0; number < ALL; number++) {
            String name = "r" + number;
            Path repository = MadeUpHistory.make(folder.resolve(name), number / 2, number < LONG ? 150 : 4);
            add(name, repository, segments, branches, pasts);
        }
        view = ViewBuilder.next(ViewBuilder.empty(), segments, branches, pasts);
        Map<String, Long> names =
                view.branches().stream().collect(Collectors.groupingBy(Branch::name, Collectors.counting()));
        rare = Collections.min(names.keySet(), Comparator.comparing(names::get));
        assertThat(names.get(rare)).isLessThan(5);
    }

    private static void add(
            String name,
            Path repository,
            List<Path> segments,
            List<ViewBuilder.Wanted> branches,
            Map<String, List<Path>> pasts)
            throws IOException, InterruptedException {
        Set<String> labels = name.endsWith("1") ? Set.of("odd") : Set.of();
        Path files = Files.createDirectories(folder.resolve("index-" + name));
        try (MirrorReader reader = new MirrorReader(repository)) {
            List<ObjectId> tips = new ArrayList<>();
            for (String line : GitCommand.run(repository, "for-each-ref", "--format=%(objectname) %(refname:short)")
                    .lines()
                    .toList()) {
                String commit = line.substring(0, 40);
                String branch = line.substring(41);
                tips.add(ObjectId.of(commit));
                Ingest.Ingested done = new Ingest(NewFiles.in(files), 1 << 20, 2, "")
                        .run(reader.tree(commit), ViewBuilder.empty(), new IngestProgress(), () -> false);
                segments.addAll(done.segments());
                branches.add(new ViewBuilder.Wanted(
                        new Branch(name, labels, branch, commit, Instant.EPOCH, branch.equals("main")),
                        done.snapshot()));
            }
            pasts.put(name, HistoryAgainstGitTest.pasts(reader, tips, files));
        }
    }

    @AfterAll
    static void close() {
        view.release();
        pool.close();
    }

    private static SearchContext context() {
        return new SearchContext(
                view,
                Exclusions.NONE,
                Instant.parse("2026-06-15T12:00:00Z"),
                new Budget(Duration.ofMinutes(5)),
                pool,
                () -> {});
    }

    private <T> T one(T[] of) {
        return of[random.nextInt(of.length)];
    }

    /** A condition; of a branch that few repositories have, at times. */
    private String other() {
        return random.nextInt(8) == 0 ? "branch(" + rare + ")" : one(OTHERS);
    }

    private static Query query(String text) {
        return new TextQuery(text, Reading.EXPRESSION, CaseMode.AUTO, false)
                .understand(false)
                .query();
    }

    /** Parts of all repositories, by chance. */
    private List<SearchContext> parts(SearchContext context) {
        int number = 1 + random.nextInt(4);
        Map<String, Integer> parts = new TreeMap<>();
        view.branches().forEach(branch -> parts.computeIfAbsent(branch.repository(), _ -> random.nextInt(number)));
        return IntStream.range(0, number)
                .mapToObj(part -> context.of(view.of(name -> parts.get(name) == part)))
                .toList();
    }

    @Test
    void commitsAreThoseOfTheWhole() {
        int found = 0;
        int continued = 0;
        for (int i = 0; i < 120; i++) {
            String clause = random.nextBoolean()
                    ? one(new String[] {"adds", "removes", "says"}) + "(" + one(WORDS) + ")"
                    : one(WORDS);
            String text = switch (random.nextInt(4)) {
                case 0 -> other();
                case 1 -> clause;
                default -> clause + " and " + other();
            };
            int from = random.nextInt(3) == 0 ? random.nextInt(60) : 0;
            CommitSearch search = new CommitSearch(query(text), CaseMode.AUTO, from, 1 + random.nextInt(40), true);
            CommitAnswer whole = search.run(context());
            SearchContext context = context();
            List<CommitsFound> parts = parts(context).stream().map(search::find).toList();
            assertThat(parts).allMatch(part -> search.isIn(part, view));
            assertThat(search.answer(parts, context))
                    .as("seed %d: %s", SEED, search)
                    .isEqualTo(whole);
            found += whole.commits() > 1 ? 1 : 0;
            continued += whole.next().isPresent() ? 1 : 0;
        }
        assertThat(found).isGreaterThan(80);
        assertThat(continued).isGreaterThan(30);
    }

    @Test
    void whatCameAndWentIsThatOfTheWhole() {
        for (int i = 0; i < 40; i++) {
            LinesOverTime search = new LinesOverTime(
                    query(one(WORDS)),
                    CaseMode.AUTO,
                    Scope.EVERYTHING,
                    random.nextInt(2) * random.nextInt(100),
                    1 + random.nextInt(40));
            LinesOverTime.Answer whole = search.run(context());
            SearchContext context = context();
            List<LinesOverTime.Found> parts =
                    parts(context).stream().map(search::find).toList();
            assertThat(parts).allMatch(part -> search.isIn(part, view));
            assertThat(search.answer(parts, context))
                    .as("seed %d: %s", SEED, search)
                    .isEqualTo(whole);
            assertThat(whole.commits()).isPositive();
        }
    }

    @Test
    void whatIsThereNowIsToldOfEachOfManyRepositories() {
        LinesOverTime.Answer answer =
                new LinesOverTime(query("re"), CaseMode.AUTO, Scope.EVERYTHING, 0, 1).run(context());
        assertThat(answer.courses())
                .hasSizeGreaterThan(50)
                .allSatisfy(course -> assertThat(course.now())
                        .as(course.repository())
                        .isEqualTo(new LinesOverTime(
                                        query("re"),
                                        CaseMode.AUTO,
                                        Scope.EVERYTHING.with(
                                                dev.oddbeacon.api.ScopePart.REPO, List.of(course.repository())),
                                        0,
                                        1)
                                .run(context())
                                .courses()
                                .getFirst()
                                .now()));
    }

    @Test
    void onlyTheSamePastHasTheSameFingerprint() {
        View some = view.of("r1"::equals);
        assertThat(some.fingerprintWithPasts())
                .isEqualTo(view.of("r1"::equals).fingerprintWithPasts())
                .isNotEqualTo(some.fingerprint())
                .isNotEqualTo(view.of("r0"::equals).fingerprintWithPasts());
    }
}
