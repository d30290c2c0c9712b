package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.exclusion.ExclusionEffect;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.files.Counterparts;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.places.PlaceMatcher;
import dev.oddbeacon.core.places.PlaceParser;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.FileOutline;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.core.symbols.UseCounts;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A view without some repositories answers everything as an index does that never had them, although its segments,
 * dictionaries and lists are shared with what is hidden.
 */
class HiddenRepositoriesTest {
    private static final List<String> REPOSITORIES = List.of("berth", "fare", "gate", "hull", "tide");
    private static final String[] WORDS = {
        "mooring",
        "moorings",
        "buffer",
        "tide",
        "tides",
        "gauge",
        "Gauge",
        "berth",
        "Berth",
        "assign",
        "planner",
        "hidden",
        "harbour",
        "harbor"
    };
    private static final String[] FOLDERS = {"", "src/", "src/plan/", "test/", "docs/", "vendor/lib/"};
    private static final long SEED = Long.getLong("oddbeacon.seed", 20_261_128L);

    @TempDir
    Path folder;

    private Random random;
    private Map<String, Map<String, String>> contents; // by repository and path

    @BeforeEach
    void makeUp() {
        System.out.println("hidden repositories property test: seed " + SEED);
        random = new Random(SEED);
        contents = new TreeMap<>();
        List<String> shared = new ArrayList<>();
        for (String repository : REPOSITORIES) {
            Map<String, String> files = new TreeMap<>();
            for (int i = 0; i < 12; i++) {
                String name = word() + (random.nextBoolean() ? "Test" : "") + i;
                boolean copies = !shared.isEmpty() && random.nextInt(4) == 0;
                String text = copies ? shared.get(random.nextInt(shared.size())) : text(repository);
                shared.add(text);
                files.put(FOLDERS[random.nextInt(FOLDERS.length)] + name + ".java", text);
            }
            contents.put(repository, files);
        }
    }

    private String word() {
        return WORDS[random.nextInt(WORDS.length)];
    }

    private String text(String repository) {
        String type = Character.toUpperCase(repository.charAt(0)) + repository.substring(1) + random.nextInt(3);
        StringBuilder text = new StringBuilder("/** " + word() + " only" + repository + " */\nclass " + type
                + (random.nextBoolean() ? " extends Gauge" : "") + " {\n");
        for (int i = 0; i < 4; i++) {
            text.append("    void ")
                    .append(word())
                    .append("() { ")
                    .append(word())
                    .append("(\"")
                    .append(word())
                    .append(' ')
                    .append(word())
                    .append("\"); }\n");
        }
        return text.append("}\n").toString();
    }

    private Library library(Set<String> repositories, boolean merged) throws IOException {
        Library library = new Library(Files.createTempDirectory(folder, "index"));
        for (String repository : repositories) {
            MemoryTree tree = new MemoryTree();
            contents.get(repository).forEach((path, text) -> tree.file(path, text.getBytes(StandardCharsets.UTF_8)));
            library.add(repository, tree, repository.substring(0, 1));
        }
        if (merged) {
            library.merge();
        }
        return library;
    }

    private static final Exclusions ODD = (_, snapshot) -> {
        BitSet odd = new BitSet();
        snapshot.forEachPath((path, file) -> odd.set(file, NaiveSearch.isOdd(path)));
        return odd;
    };

    @Test
    void nothingTellsThatTheyAreThere() throws IOException {
        int compared = 0;
        for (int round = 0; round < 10; round++) {
            Set<String> hidden = new TreeSet<>();
            while (hidden.isEmpty() || hidden.size() == REPOSITORIES.size()) {
                REPOSITORIES.stream().filter(_ -> random.nextInt(3) == 0).forEach(hidden::add);
            }
            Set<String> shown = new TreeSet<>(REPOSITORIES);
            shown.removeAll(hidden);
            try (Library all = library(new TreeSet<>(REPOSITORIES), round % 2 == 0);
                    Library never = library(shown, false)) {
                SearchContext restricted = Library.context(
                        all.view().seenBy(hidden, name -> !hidden.contains(name)),
                        ODD,
                        new Budget(Duration.ofMinutes(5)));
                SearchContext plain = Library.context(never.view(), ODD, new Budget(Duration.ofMinutes(5)));
                for (Map.Entry<String, Function<SearchContext, Object>> question :
                        questions().entrySet()) {
                    assertThat(told(question.getValue(), restricted))
                            .as("seed %d, round %d, without %s: %s", SEED, round, hidden, question.getKey())
                            .isEqualTo(told(question.getValue(), plain));
                    compared++;
                }
            }
        }
        System.out.println("hidden repositories property test: " + compared + " answers");
    }

    private static String told(Function<SearchContext, Object> question, SearchContext context) {
        try {
            return question.apply(context).toString();
        } catch (InvalidQueryException e) {
            return "refused: " + e.getMessage();
        }
    }

    /** Questions of every subject, by what they ask. */
    private Map<String, Function<SearchContext, Object>> questions() {
        Map<String, Function<SearchContext, Object>> questions = new TreeMap<>();
        String[] atoms = {word(), word(), word(), " ", "(", "\n", "onlyfare", "onlygate"};
        RandomQueries queries = new RandomQueries(
                random, atoms, List.copyOf(contents.get("berth").values()));
        for (int i = 0; i < 25; i++) {
            Query query = queries.query(2);
            LineSearch.Order order = LineSearch.Order.values()[random.nextInt(3)];
            int limit = 1 + random.nextInt(40);
            questions.put(
                    "lines " + ExpressionPrinter.print(query) + " " + order + " " + limit,
                    context -> lines(context, query, order, limit));
            questions.put(
                    "left out " + ExpressionPrinter.print(query),
                    context ->
                            new LeftOut(query, Scope.EVERYTHING.with(ScopePart.EXCEPT, List.of("odd"))).run(context));
        }
        for (int i = 0; i < 12; i++) {
            String text = word();
            String misspelt = text.substring(0, 2) + text.charAt(3) + text.charAt(2) + text.substring(4);
            Scope scope = random.nextBoolean()
                    ? Scope.EVERYTHING
                    : Scope.EVERYTHING.with(ScopePart.UNDER, List.of(random.nextBoolean() ? "src/plna" : "vendor/lbi"));
            boolean whole = random.nextBoolean();
            questions.put(
                    "second looks " + misspelt + " " + scope,
                    context -> new SecondLooks(
                                    new TextQuery(misspelt + " zq", Reading.PLAIN, CaseMode.AUTO, false), scope)
                            .run(context));
            questions.put(
                    "spellings " + misspelt,
                    context -> new SecondLooks(new TextQuery(misspelt, Reading.PLAIN, CaseMode.AUTO, whole), scope)
                            .run(context));
            questions.put(
                    "only of a repository " + i,
                    context -> new SecondLooks(new TextQuery("onlyfara", Reading.PLAIN, CaseMode.AUTO, false), scope)
                            .run(context));
            String letters = text.substring(0, 3);
            String other = word();
            String branch = random.nextBoolean() ? "main" : "none";
            questions.put(
                    "files " + letters,
                    context -> files(context, letters, FileSearch.PathReading.FRAGMENTS, FileSearch.Kind.FILE));
            questions.put(
                    "files of " + text,
                    context -> files(
                            context,
                            text + " declares(" + other + ")",
                            FileSearch.PathReading.EXPRESSION,
                            FileSearch.Kind.FILE));
            questions.put(
                    "folders " + letters,
                    context -> files(context, letters, FileSearch.PathReading.FRAGMENTS, FileSearch.Kind.FOLDER));
            for (SymbolRole role : SymbolRole.values()) {
                questions.put(
                        "symbols " + letters + " " + role,
                        context -> symbols(context, letters, SymbolQuery.NameReading.FRAGMENTS, role));
                questions.put(
                        "symbols " + text + " " + role,
                        context -> symbols(context, text, SymbolQuery.NameReading.PLAIN, role));
                String qualified = "Berth" + letters.length() % 3 + "." + text;
                questions.put(
                        "symbols " + qualified + " " + role,
                        context -> symbols(context, qualified, SymbolQuery.NameReading.PLAIN, role));
            }
            questions.put(
                    "uses of " + text, context -> UseCounts.of(context, Scope.EVERYTHING, List.of(text, "onlyfare")));
            questions.put(
                    "branch " + branch + i,
                    context -> lines(context, new FileCondition.OnBranch(branch), LineSearch.Order.PATH, 5));
        }
        questions.put(
                "places",
                context -> PlaceMatcher.match(
                                context,
                                Scope.EVERYTHING,
                                PlaceParser.parse(
                                        "at src/plan/tide3.java:1\n /x/mooring1.java:2 docs/Gauge4.java:3", 10))
                        .stream()
                        .map(matched -> matched.candidates().stream()
                                .map(one -> repository(context, one.branchNumber()) + "/" + one.path())
                                .toList())
                        .toList());
        questions.put("exclusions", context -> effect(context));
        questions.put("inside of files", context -> inside(context));
        return questions;
    }

    private static String repository(SearchContext context, int branch) {
        return context.view().branch(branch).repository();
    }

    private static String place(SearchContext context, int branch, int file) {
        return repository(context, branch) + "/"
                + context.view().snapshot(branch).path(file);
    }

    private static Object lines(SearchContext context, Query query, LineSearch.Order order, int limit) {
        List<Object> pages = new ArrayList<>();
        Optional<LineAnswer.Position> from = Optional.of(LineAnswer.Position.START);
        while (from.isPresent()) {
            LineAnswer answer = new LineSearch(
                            CompiledQuery.of(query, CaseMode.AUTO),
                            limit,
                            1,
                            from.get(),
                            true,
                            order,
                            LineSearch.Show.LINES_WITH_REGIONS)
                    .run(context);
            pages.add(List.of(
                    answer.hits(),
                    answer.files(),
                    answer.repositories(),
                    answer.exact(),
                    answer.facets(),
                    answer.page().stream()
                            .map(file -> List.of(
                                    place(context, file.branchNumber(), file.file()),
                                    file.hits(),
                                    file.relevance(),
                                    file.excerpts()))
                            .toList()));
            if (context.view().isPart()) {
                assertThat(List.of(
                                answer.explanation().segments(),
                                answer.explanation().lists(),
                                answer.explanation().postingsBytes()))
                        .containsOnly(0, 0L);
            }
            from = answer.next();
        }
        return pages;
    }

    private static Object files(
            SearchContext context, String text, FileSearch.PathReading reading, FileSearch.Kind kind) {
        FileSearch.Answer answer = new FileSearch(
                        text,
                        reading,
                        CaseMode.AUTO,
                        Scope.EVERYTHING,
                        kind,
                        FileSearch.Sizes.ANY,
                        FileSearch.Sorting.by(FileSearch.Order.RELEVANCE),
                        0,
                        20)
                .run(context);
        return List.of(
                answer.files(),
                answer.repositories(),
                answer.facets(),
                answer.next(),
                answer.page().stream()
                        .map(found -> List.of(repository(context, found.branchNumber()), found.path(), found.matches()))
                        .toList());
    }

    private static Object symbols(
            SearchContext context, String text, SymbolQuery.NameReading reading, SymbolRole role) {
        SymbolQuery query = SymbolQuery.of(text, reading, CaseMode.AUTO, Scope.EVERYTHING);
        SymbolAnswer answer =
                new SymbolSearch(query, role, Set.of(), EnumSet.allOf(Certainty.class), 0, 25, true).run(context);
        return List.of(
                answer.symbols(),
                answer.files(),
                answer.repositories(),
                answer.facets(),
                answer.kinds(),
                answer.roles(),
                answer.certainties(),
                answer.next(),
                answer.page().stream()
                        .map(symbol -> List.of(
                                place(context, symbol.branchNumber(), symbol.file()),
                                symbol.name(),
                                symbol.role(),
                                symbol.certainty(),
                                symbol.kind(),
                                symbol.container(),
                                symbol.line(),
                                symbol.signature()))
                        .toList());
    }

    private static Object effect(SearchContext context) {
        ExclusionEffect effect = ExclusionEffect.of(
                context.view(),
                context.limits(CompiledQuery.of(Scope.EVERYTHING.query(), CaseMode.AUTO)),
                ExclusionSet.parse("vendor\nTide*\nonly*\n!tide*\n").set());
        return List.of(
                effect.files(),
                effect.left(),
                effect.patterns().stream()
                        .map(pattern -> List.of(
                                pattern.text(),
                                pattern.files(),
                                pattern.folders(),
                                pattern.warning(),
                                pattern.sampleFiles().stream()
                                        .map(sample -> repository(context, sample.branchNumber()) + sample.path())
                                        .toList()))
                        .toList());
    }

    /** Outlines, what names lead to, the relatives of types, and tests of code, file by file. */
    private static Object inside(SearchContext context) {
        View view = context.view();
        List<Object> told = new ArrayList<>();
        for (int branch = 0; branch < view.branches().size(); branch++) {
            for (int file = 0; file < view.snapshot(branch).count(); file++) {
                told.add(place(context, branch, file));
                told.add(Counterparts.of(
                        view.snapshot(branch), view.snapshot(branch).path(file)));
                FileOutline outline = FileOutline.of(view, branch, file, 100);
                told.add(outline);
                for (FileOutline.Symbol symbol : outline.symbols()) {
                    Navigation.At at = new Navigation(view, branch, file)
                            .at(symbol.line(), symbol.column())
                            .orElseThrow();
                    for (List<Navigation.Target> targets :
                            List.of(at.declarations(), at.supertypes(), at.subtypes(), at.family())) {
                        told.add(targets.stream()
                                .map(target -> List.of(
                                        place(context, target.branchNumber(), target.file()),
                                        target.name(),
                                        target.line(),
                                        target.reason()))
                                .toList());
                    }
                }
            }
        }
        return told;
    }
}
