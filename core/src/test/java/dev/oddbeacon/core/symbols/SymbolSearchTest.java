package dev.oddbeacon.core.symbols;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionParser;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.outline.Declaration;
import dev.oddbeacon.core.symbols.SymbolQuery.NameReading;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SymbolSearchTest {

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

    private static MemoryTree tree(String... pathsAndTexts) {
        MemoryTree tree = new MemoryTree();
        for (int i = 0; i < pathsAndTexts.length; i += 2) {
            tree.file(pathsAndTexts[i], pathsAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
        }
        return tree;
    }

    private SymbolAnswer search(String text, NameReading reading, SymbolRole role, Kind... kinds) {
        SymbolQuery query = SymbolQuery.of(text, reading, CaseMode.AUTO, Scope.EVERYTHING);
        return new SymbolSearch(query, query.role().orElse(role), Set.of(kinds), Set.of(), 0, 1_000, true)
                .run(library.context());
    }

    private List<String> found(String text, NameReading reading, SymbolRole role, Kind... kinds) {
        return search(text, reading, role, kinds).page().stream()
                .map(symbol -> symbol.kind().map(kind -> kind.label() + " ").orElse("use ")
                        + (symbol.container().isEmpty() ? "" : symbol.container() + ".") + symbol.name() + " "
                        + symbol.line().number() + ":" + symbol.column())
                .toList();
    }

    private List<String> declared(String text) {
        return found(text, NameReading.FRAGMENTS, SymbolRole.DECLARATION).stream()
                .map(line -> line.substring(line.indexOf(' ') + 1, line.lastIndexOf(' ')))
                .toList();
    }

    @Nested
    class OfAFewFiles {
        @BeforeEach
        void index() throws IOException {
            library.add(
                    "berths",
                    tree(
                            "Berth.java",
                            "package q;\npublic class Berth {\n    int tideGauge;\n    void assign(Berth other) { other.assign(this); }\n}\n",
                            "plan.py",
                            "class BerthPlanner:\n    def assign(self, tide_gauge):\n        return tide_gauge # assign\n",
                            "x.h",
                            "#define assign(x) (x)\nint assign_all(void);\n",
                            "notes.txt",
                            "assign\n"));
        }

        @Test
        void partsOfANameFindDeclarationsTheBestFirst() {
            assertThat(declared("assign"))
                    .containsExactly("q.Berth.assign", "BerthPlanner.assign", "assign", "assign_all");
            assertThat(declared("ass")).hasSize(4);
            assertThat(declared("GAUGE")).containsExactly("q.Berth.tideGauge");
        }

        @Test
        void theContainerTellsThemApartInAnyManner() {
            assertThat(declared("Berth.assign")).containsExactly("q.Berth.assign", "BerthPlanner.assign");
            assertThat(declared("planner assign")).containsExactly("BerthPlanner.assign");
            assertThat(declared("BerthPlanner::assign")).containsExactly("BerthPlanner.assign");
            assertThat(found("Berth.assign", NameReading.PLAIN, SymbolRole.DECLARATION))
                    .containsExactly("method q.Berth.assign 4:10");
        }

        @Test
        void firstLettersAndNamesWithoutTheirSeparatorsWillDo() {
            assertThat(declared("bp")).containsExactly("BerthPlanner");
            assertThat(declared("assignall")).containsExactly("assign_all");
        }

        @Test
        void usesAreWhereANameStandsInCodeAndDeclaresNothing() {
            assertThat(found("assign", NameReading.PLAIN, SymbolRole.USE))
                    .containsExactly("use q.Berth.assign.assign 4:38");
            assertThat(found("tide_gauge", NameReading.PLAIN, SymbolRole.ANY))
                    .containsExactly(
                            "use BerthPlanner.assign.tide_gauge 2:22", "use BerthPlanner.assign.tide_gauge 3:16");
            assertThat(found("Berth", NameReading.PLAIN, SymbolRole.ANY))
                    .containsExactly("class q.Berth 2:14", "use q.Berth.assign.Berth 4:17");
        }

        @Test
        void kindsGlobsRegularExpressionsAndExpressionsNarrow() {
            assertThat(found("assign*", NameReading.GLOB, SymbolRole.DECLARATION, Kind.MACRO, Kind.PROTOTYPE))
                    .containsExactly("macro assign 1:9", "prototype assign_all 2:5");
            assertThat(found("^a.*l$", NameReading.REGEX, SymbolRole.DECLARATION))
                    .containsExactly("prototype assign_all 2:5");
            assertThat(found("assign type(python)", NameReading.EXPRESSION, SymbolRole.DECLARATION))
                    .containsExactly("method BerthPlanner.assign 2:9");
            assertThat(found("like(asign)", NameReading.EXPRESSION, SymbolRole.DECLARATION))
                    .hasSize(3);
            assertThat(found("declares(class Berth*)", NameReading.EXPRESSION, SymbolRole.USE))
                    .hasSize(2);
            assertThatThrownBy(() -> search("assign or type(java)", NameReading.EXPRESSION, SymbolRole.ANY))
                    .isInstanceOf(InvalidQueryException.class);
            assertThatThrownBy(() -> search(" ", NameReading.FRAGMENTS, SymbolRole.ANY))
                    .isInstanceOf(InvalidQueryException.class);
        }

        @Test
        void linesAreSearchedByRegionAndByWhatTheyDeclare() {
            assertThat(lines("comment(assign)")).containsExactly("plan.py:3");
            assertThat(lines("declares(assign)")).containsExactly("Berth.java:4", "plan.py:2", "x.h:1");
            assertThat(lines("declares(Berth.assign)")).containsExactly("Berth.java:4");
            assertThat(lines("uses(assign)")).containsExactly("Berth.java:4");
            assertThat(lines("symbol(assign*)")).containsExactly("Berth.java:4", "plan.py:2", "x.h:1", "x.h:2");
            assertThat(lines("outside(comment, assign) type(python)")).containsExactly("plan.py:2");
            assertThat(lines("code(assign)")).contains("notes.txt:1");
        }

        @Test
        void anOutlineTellsWhatStandsInWhat() {
            int file = library.view().snapshot(0).find("Berth.java").orElseThrow();
            assertThat(FileOutline.of(library.view(), 0, file, 100).symbols())
                    .extracting(
                            FileOutline.Symbol::name,
                            FileOutline.Symbol::depth,
                            FileOutline.Symbol::line,
                            FileOutline.Symbol::endLine,
                            FileOutline.Symbol::signature)
                    .containsExactly(
                            tuple("q", 0, 1, 1, "package q"),
                            tuple("Berth", 1, 2, 5, "public class Berth"),
                            tuple("tideGauge", 2, 3, 3, "int tideGauge"),
                            tuple("assign", 2, 4, 4, "void assign(Berth other)"));
        }

        private List<String> lines(String expression) {
            return SymbolSearchTest.this.lines(
                    ExpressionParser.parse(expression).query());
        }
    }

    @Nested
    class Navigating {
        @BeforeEach
        void index() throws IOException {
            library.add(
                    "ferries",
                    tree(
                            "a/Rule.java",
                            "package a;\npublic interface Rule {\n    boolean holds(int x);\n}\n",
                            "a/Depth.java",
                            "package a;\npublic class Depth implements Rule {\n    public boolean holds(int x) { return x > 0; }\n}\n",
                            "b/Other.java",
                            "package b;\nimport a.Rule;\nclass Other extends a.Depth {\n    public boolean holds(int x) { return true; }\n    Rule rule;\n}\nclass Unrelated { boolean holds(int x) { return false; } }\n"));
        }

        private Navigation.At at(String path, int line, int column) {
            return new Navigation(
                            library.view(),
                            0,
                            library.view().snapshot(0).find(path).orElseThrow())
                    .at(line, column)
                    .orElseThrow();
        }

        private static List<String> names(List<Navigation.Target> targets) {
            return targets.stream()
                    .map(target -> target.container() + "." + target.name())
                    .toList();
        }

        @Test
        void aUseLeadsToItsDeclarationWithTheReason() {
            Navigation.At rule = at("b/Other.java", 5, 6);
            assertThat(rule.declarations())
                    .extracting(Navigation.Target::line, Navigation.Target::reason)
                    .containsExactly(tuple(2, Navigation.Reason.TOLD));
        }

        @Test
        void aTypeLeadsUpAndDown() {
            Navigation.At depth = at("a/Depth.java", 2, 15);
            assertThat(names(depth.supertypes())).containsExactly("a.Rule");
            assertThat(names(depth.subtypes())).containsExactly("b.Other");
        }

        @Test
        void aMethodHasAFamily() {
            assertThat(names(at("a/Depth.java", 3, 20).family()))
                    .containsExactlyInAnyOrder("a.Rule.holds", "b.Other.holds");
        }

        @Test
        void whereNoNameStandsThereIsNothing() {
            Navigation navigation = new Navigation(library.view(), 0, 0);
            assertThat(navigation.at(2, 1)).isEmpty(); // public
            assertThat(navigation.at(99, 1)).isEmpty();
            assertThat(navigation.at(1, 500)).isEmpty();
        }
    }

    private List<String> lines(Query query) {
        LineAnswer answer = new LineSearch(
                        CompiledQuery.of(query, CaseMode.AUTO),
                        1_000,
                        0,
                        LineAnswer.Position.START,
                        true,
                        LineSearch.Order.PATH,
                        LineSearch.Show.LINES)
                .run(library.context());
        List<String> found = new ArrayList<>();
        answer.page()
                .forEach(file -> file.excerpts()
                        .forEach(excerpt -> excerpt.lines()
                                .forEach(
                                        line -> found.add(library.view()
                                                        .snapshot(file.branchNumber())
                                                        .path(file.file()) + ":" + line.number()))));
        return found;
    }

    /**
     * What the index says of names and regions, against the analysis of each file by itself; files are longer than
     * pieces of the index.
     */
    @Test
    void theIndexAgreesWithTheFiles() throws IOException {
        Random random = new Random(20261124);
        String[] words = {
            "tide", "Berth", "assign", "gauge_at", "x", "Tide", "for", "int", "return", "kMost", "_v", "$d"
        };
        String[] glue = {
            " ",
            "\n",
            "(",
            ") {\n",
            "}\n",
            ";\n",
            " = ",
            ", ",
            " /* tide x */ ",
            " // Berth assign\n",
            " \"tide x\" ",
            "#define ",
            "class ",
            "\n\n"
        };
        String[] endings = {"java", "c", "py", "js", "go", "txt"};
        MemoryTree tree = new MemoryTree();
        Map<String, byte[]> texts = new TreeMap<>();
        for (int file = 0; file < 24; file++) {
            StringBuilder text = new StringBuilder();
            int size = file % 4 == 0 ? 60_000 : 2_000;
            while (text.length() < size) {
                text.append(words[random.nextInt(words.length)]).append(glue[random.nextInt(glue.length)]);
            }
            String path = "f" + file + "." + endings[file % endings.length];
            texts.put(path, text.toString().getBytes(StandardCharsets.UTF_8));
            tree.file(path, texts.get(path));
        }
        library.add("random", tree);
        Map<String, Long> declarations = new HashMap<>();
        Map<String, Long> uses = new HashMap<>();
        Map<Region, Long> inRegion = new HashMap<>();
        Analyser analyser = new Analyser();
        texts.forEach((path, text) -> {
            var language = Language.ofType(
                    switch (path.substring(path.indexOf('.') + 1)) {
                        case "py" -> "python";
                        case "js" -> "javascript";
                        case "txt" -> "text";
                        case String ending -> ending;
                    });
            byte[] kind = new byte[text.length];
            if (language.isPresent()) {
                Analysis analysis = analyser.analyse(language.get(), text);
                for (int i = 0; i < analysis.found().regions(); i++) {
                    Arrays.fill(
                            kind,
                            analysis.found().regionStart(i),
                            analysis.found().regionEnd(i),
                            (byte) analysis.found().region(i).ordinal());
                }
                Set<Integer> starts = new HashSet<>();
                for (Declaration one : analysis.declarations()) {
                    if (!one.kind().isUse()) {
                        declarations.merge(
                                new String(
                                        text, one.nameStart(), one.nameEnd() - one.nameStart(), StandardCharsets.UTF_8),
                                1L,
                                Long::sum);
                        starts.add(one.nameStart());
                    }
                }
                for (int i = 0; i < analysis.found().names(); i++) {
                    if (!starts.contains(analysis.found().nameStart(i))) {
                        uses.merge(
                                new String(
                                        text,
                                        analysis.found().nameStart(i),
                                        analysis.found().nameEnd(i)
                                                - analysis.found().nameStart(i),
                                        StandardCharsets.UTF_8),
                                1L,
                                Long::sum);
                    }
                }
            }
            int line = 0;
            Set<String> counted = new HashSet<>();
            for (int i = 0; i + 4 <= text.length; i++) {
                line += text[i] == '\n' ? 1 : 0;
                if (new String(text, i, 4, StandardCharsets.UTF_8).equalsIgnoreCase("tide") && kind[i] == kind[i + 3]) {
                    if (counted.add(line + " " + kind[i])) {
                        inRegion.merge(Region.values()[kind[i]], 1L, Long::sum);
                    }
                }
            }
        });
        for (String word : words) {
            long expectedUses = uses.getOrDefault(word, 0L);
            SymbolAnswer answer = search(word, NameReading.PLAIN, SymbolRole.ANY);
            Query exactly = new Query.Marked(Query.Mark.EXACTLY, new TextClause.Symbol(SymbolRole.USE, word));
            SymbolQuery whole = SymbolQuery.whole(word, Scope.EVERYTHING);
            SymbolAnswer exact =
                    new SymbolSearch(whole, SymbolRole.ANY, Set.of(), Set.of(), 0, 1_000, true).run(library.context());
            assertThat(exact.symbols()).as(word).isEqualTo(declarations.getOrDefault(word, 0L) + expectedUses);
            assertThat(answer.symbols()).as(word).isGreaterThanOrEqualTo(exact.symbols());
            assertThat(exact.page().stream()
                            .filter(symbol -> symbol.role() == SymbolRole.DECLARATION)
                            .count())
                    .as(word)
                    .isEqualTo(Math.min(1_000, declarations.getOrDefault(word, 0L)));
            assertThat(exact.page()).as(word).hasSize((int) Math.min(1_000, exact.symbols()));
            assertThat(lines(exactly).size()).as("lines that use " + word).isLessThanOrEqualTo((int)
                    Math.min(1_000, expectedUses));
        }
        for (Region region : Region.values()) {
            assertThat(count(new Query.InRegion(Set.of(region), new TextClause.Text("tide"))))
                    .as(region.toString())
                    .isEqualTo(inRegion.getOrDefault(region, 0L));
        }
    }

    private long count(Query query) {
        return LineSearch.counting(CompiledQuery.of(query, CaseMode.AUTO))
                .run(library.context())
                .hits();
    }

    @Test
    void clausesOfSymbolsAndRegionsArePrintedAsTheyAreRead() {
        for (String expression : List.of(
                "code(tide)",
                "comment(/T.DO/)",
                "outside(comment, \"a b\")",
                "declares(Berth.assign)",
                "uses(get*)",
                "symbol(\"class Berth*\")",
                "string(a or b)",
                "not comment(a b)")) {
            ExpressionParser.Parsed parsed = ExpressionParser.parse(expression);
            assertThat(parsed.mistakes()).as(expression).isEmpty();
            assertThat(ExpressionParser.parse(ExpressionPrinter.print(parsed.query()))
                            .query())
                    .as(expression)
                    .isEqualTo(parsed.query());
        }
        assertThat(ExpressionParser.parse("declares(class)").mistakes()).isEmpty();
        assertThat(ExpressionParser.parse("declares(klass Berth)")
                        .mistakes()
                        .getFirst()
                        .message())
                .contains("no name of a symbol");
        assertThat(ExpressionParser.parse("outside(tide)").mistakes().getFirst().message())
                .contains("code, comment or string");
        assertThat(ExpressionParser.parse("uses()").mistakes()).isNotEmpty();
    }
}
