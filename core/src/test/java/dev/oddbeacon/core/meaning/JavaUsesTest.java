package dev.oddbeacon.core.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.expression.ExpressionParser;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Uses in Java: each line that names {@code sound} ends with what the language says of it. */
class JavaUsesTest {
    @TempDir
    Path folder;

    private RemarkedCode code;

    @BeforeEach
    void open() {
        code = new RemarkedCode(folder);
    }

    @AfterEach
    void close() {
        code.close();
    }

    private static final String GAUGE = """
            package quay;
            import java.util.List;
            public class Gauge<T> {
                int depth;
                T content;
                public int sound() { return depth; }
                public int sound(int times) { return times; }
                static Gauge<String> at(String pier) { return new Gauge<>(); }
                List<Gauge<T>> all() { return List.of(); }
                Gauge<T> next() { return this; }
            }
            """;
    private static final String BELL = """
            package quay;
            public class Bell {
                int depth;
                public void sound() {}
            }
            """;

    @Test
    void theWrittenTypeOfTheReceiverTellsMethodsOfOneNameApart() throws IOException {
        code.add("quay", "quay/Gauge.java", GAUGE, "quay/Bell.java", BELL, "tide/Pier.java", """
                package tide;
                import quay.Gauge;
                import quay.Bell;
                class Pier {
                    private final Gauge<String> gauge = new Gauge<>();
                    private Bell bell;
                    Bell[] bells;
                    int all(Gauge<String> other, Object anything) {
                        gauge.sound(); // sure
                        this.gauge.sound(); // sure
                        bell.sound(); // by-name
                        bells[0].sound(); // by-name
                        other.sound(); // sure
                        other.next().next().sound(); // sure
                        other.sound(3); // sure
                        ((Gauge<String>) anything).sound(); // sure
                        ((Bell) anything).sound(); // by-name
                        new Gauge<String>().sound(); // sure
                        Gauge.at("north").sound(); // sure
                        var made = Gauge.at("south");
                        made.sound(); // sure
                        for (Gauge<?> one : other.all()) {
                            one.sound(); // sure
                        }
                        for (var one : other.all()) {
                            one.sound(); // likely
                        }
                        Runnable late = other::sound; // sure
                        if (anything instanceof Bell ringing) {
                            ringing.sound(); // by-name
                        }
                        Bell gauge = bell;
                        gauge.sound(); // by-name
                        String pier = "a";
                        return pier.sound(); // by-name
                    }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.sound"));
    }

    @Test
    void aFieldIsNotAVariableOfItsName() throws IOException {
        code.add("quay", "quay/Gauge.java", "package quay;\nclass Gauge { int depth;\n}\n", "quay/Deep.java", """
                package quay;
                class Deep extends Gauge {
                    void set(int depth) { // by-name
                        this.depth = // sure
                            depth; // by-name
                    }
                    int get() { return depth; } // sure
                    int local() {
                        { int depth = 3; use(depth); }
                        return depth; // sure
                    }
                    int later() {
                        java.util.function.IntUnaryOperator o = depth -> depth; // by-name
                        return depth; // sure
                    }
                    void use(int d) {}
                    class Inner { int now() { return depth; } } // sure
                    Object other() {
                        return new Object() {
                            int depth = 1;
                            int it() { return depth; } // by-name
                        };
                    }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.depth").stream()
                .filter(one -> !one.contains("int depth = 3"))
                .map(one -> one.startsWith("by-name: by-name") ? "by-name: by-name" : one)
                .toList());
    }

    @Test
    void aComponentOfARecordIsUsedByCallsAndByReferences() throws IOException {
        code.add(
                "quay",
                "quay/Gauge.java",
                "package quay;\nrecord Gauge(int depth) {\n    record Mark(int depth) {}\n}\n",
                "quay/Deep.java",
                """
                package quay;
                class Deep {
                    int called(Gauge gauge) { return gauge.depth(); } // sure
                    java.util.function.ToIntFunction<Gauge> referred() { return Gauge::depth; } // sure
                    java.util.function.ToIntFunction<Gauge.Mark> other() { return Gauge.Mark::depth; } // by-name
                    int with(Gauge gauge) { return gauge.depth(3); } // by-name
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.depth"));
    }

    @Test
    void aFieldIsNotAVariableOfAnInitialiser() throws IOException {
        code.add("quay", "quay/Gauge.java", """
                package quay;
                class Gauge {
                    static String place = "north";
                    static {
                        for (String place : new String[] {"south"}) { // by-name
                            if (!place.isEmpty()) { // by-name
                                note(place); // by-name
                            }
                        }
                    }
                    {
                        if (true) {
                            note(place); // sure
                        }
                    }
                    static void note(String text) {}
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.place"));
    }

    @Test
    void whatACaseAsksForIsNoParameter() throws IOException {
        code.add("quay", "quay/Gauge.java", """
                package quay;
                class Gauge {
                    static final int HIGH = 1;
                    enum Tide { HIGH, LOW }
                    String of(int level, Tide tide) {
                        switch (level) {
                            case 0, HIGH -> {} // sure
                            default -> {}
                        }
                        return switch (tide) {
                            case HIGH -> "h"; // by-name
                            case LOW -> "l";
                        };
                    }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.HIGH"));
        assertThat(code.judged("Tide.HIGH")).containsExactlyInAnyOrder("by-name: sure", "sure: by-name");
    }

    @Test
    void whatATypeDoesNotDeclareItHasFromThoseAboveIt() throws IOException {
        code.add(
                "quay",
                "quay/Gauge.java",
                GAUGE,
                "quay/Float.java",
                "package quay;\nclass Float extends Gauge<Bell> {}\n",
                "quay/Own.java",
                "package quay;\nclass Own extends Gauge<Bell> { public int sound() { return 1; } }\n",
                "quay/Bell.java",
                BELL,
                "quay/Use.java",
                """
                package quay;
                class Use {
                    void use(Float one, Own other) {
                        one.sound(); // sure
                        other.sound(); // by-name
                        other.sound(1); // sure
                        one.content.sound(); // by-name
                    }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.sound"));
        assertThat(code.judged("Own.sound")).contains("sure: by-name", "by-name: sure");
        assertThat(code.judged("Bell.sound"))
                .filteredOn(one -> one.startsWith("sure"))
                .containsExactly("sure: by-name");
    }

    @Test
    void argumentsTellMethodsOfOneTypeApart() throws IOException {
        code.add("quay", "quay/Log.java", """
                package quay;
                class Log {
                    void note(String text) {}
                    void note(int depth) {}
                    void note(String text, Object... more) {}
                    void all() {
                        note("high"); // text
                        note(3); // depth
                        note("high", 3, 4); // more
                        note(unknown()); // text or depth
                    }
                }
                """);
        List<Spot> declared = new Spots(code.library().view(), 0).of("note");
        assertThat(declared).hasSize(3);
        assertThat(of(declared.get(0))).containsExactly("sure: text", "likely: text or depth");
        assertThat(of(declared.get(1))).containsExactly("sure: depth", "likely: text or depth");
        assertThat(of(declared.get(2))).contains("sure: more");
    }

    private List<String> of(Spot spot) {
        return new SymbolSearch(
                        SymbolQuery.usesOf(List.of(spot), Scope.EVERYTHING),
                        SymbolRole.USE,
                        Set.of(),
                        Set.of(),
                        0,
                        100,
                        true)
                .run(code.library().context()).page().stream()
                        .map(symbol -> symbol.certainty().orElseThrow().label() + ": "
                                + symbol.line()
                                        .text()
                                        .substring(symbol.line().text().indexOf("// ") + 3))
                        .toList();
    }

    @Test
    void typesOfOneNameAreToldApartByImportsAndPackages() throws IOException {
        code.add(
                "quay",
                "quay/Gauge.java",
                "package quay;\npublic class Gauge { public static void sound() {} }\n",
                "tide/Gauge.java",
                "package tide;\npublic class Gauge { public static void sound() {} }\n",
                "tide/Here.java",
                "package tide;\nclass Here { void go() { Gauge.sound(); } } // by-name\n",
                "pier/There.java",
                "package pier;\nimport quay.Gauge;\nclass There { void go() { Gauge.sound(); } } // sure\n",
                "pier/All.java",
                "package pier;\nimport quay.*;\nclass All { void go() { Gauge.sound(); } } // sure\n",
                "pier/Whole.java",
                "package pier;\nclass Whole { void go() { quay.Gauge.sound(); } } // sure\n",
                "pier/Static.java",
                "package pier;\nimport static quay.Gauge.sound; // sure\nclass Static { void go() { sound(); } } // sure\n");
        RemarkedCode.assertAsRemarked(code.judged("quay.Gauge.sound"));
    }

    @Test
    void anotherRepositoryIsAskedWhereTheOwnDoesNotDeclareIt() throws IOException {
        code.add("library", "quay/Gauge.java", GAUGE);
        code.add(
                "ferry",
                "ferry/Use.java",
                "package ferry;\nimport quay.Gauge;\nclass Use { int use(Gauge<String> g) { return g.sound(); } } // sure\n");
        code.add(
                "harbour",
                "quay/Gauge.java",
                "package quay;\nclass Gauge { int sound() { return 1; } }\n",
                "quay/Use.java",
                "package quay;\nclass Use { int use(Gauge g) { return g.sound(); } } // sure of both\n");
        assertThat(code.judged("Gauge.sound")).containsOnly("likely: sure", "sure: sure of both");
    }

    @Test
    void ofATypeInALanguageThatIsNotReadOnlyTheNameIsKnown() throws IOException {
        code.add(
                "quay",
                "quay/Gauge.kt",
                "package quay\n\nclass Gauge { fun sound(): Int = 1 }\n",
                "quay/Deep.java",
                "package quay;\nclass Deep extends Gauge { void go(Gauge g, Deep d) { g.sound(); d.sound(); } } // likely\n");
        RemarkedCode.assertAsRemarked(code.judged("Gauge.sound"));
    }

    @Test
    void aTypeWhoseOriginIsNotIndexedTellsByWhatTheFileSpeaksOf() throws IOException {
        code.add("quay", "quay/Gauge.java", GAUGE, "quay/Bell.java", BELL, "tide/Near.java", """
                package tide;
                import quay.Gauge;
                import elsewhere.Registry;
                class Near {
                    void go(Registry registry) {
                        registry.find().sound(); // likely
                        registry.find().sound(1, 2, 3); // by-name
                    }
                    Gauge<String> gauge;
                }
                """, "tide/Far.java", """
                package tide;
                import elsewhere.Registry;
                class Far {
                    void go(Registry registry) {
                        registry.find().sound(); // by-name
                    }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.sound"));
    }

    @Test
    void whereNothingElseHasTheNameAUseIsLikely() throws IOException {
        code.add("quay", "quay/Gauge.java", GAUGE, "tide/Far.java", """
                package tide;
                import elsewhere.Registry;
                class Far {
                    void go(Registry registry, String text) {
                        registry.find().sound(); // likely
                        registry.find().sound(1, 2, 3); // by-name
                        text.sound(); // by-name
                    }
                }
                """);
        RemarkedCode.assertAsRemarked(code.judged("Gauge.sound"));
    }

    @Test
    void anExpressionFindsTheLinesOfUsesThatAreSureOrLikely() throws IOException {
        code.add("quay", "quay/Gauge.java", GAUGE, "quay/Bell.java", BELL, "quay/Use.java", """
                package quay;
                class Use {
                    void use(Gauge<String> gauge, Bell bell) {
                        gauge.sound();
                        bell.sound();
                    }
                }
                """);
        assertThat(lines("uses(Gauge.sound)")).containsExactly("gauge.sound();");
        assertThat(lines("uses(Bell.sound)")).containsExactly("bell.sound();");
        assertThat(lines("uses(sound)")).hasSize(2);
        assertThat(lines("symbol(Bell.sound)")).containsExactlyInAnyOrder("public void sound() {}", "bell.sound();");
    }

    @Test
    @Timeout(60)
    void textsThatAreMeantToTakeLongDoNot() throws IOException {
        String types = IntStream.range(0, 3_000)
                .mapToObj(i -> "class T" + i + " extends T" + (i + 1) + " {}\n")
                .collect(Collectors.joining());
        code.add(
                "quay",
                "quay/Gauge.java",
                "package quay;\nclass Gauge { Gauge sound(Gauge g) { return g; } Gauge sound(String s) { return null; } }\n",
                "quay/Deep.java",
                "package quay;\nclass Deep { Gauge sound; Object o = " + "sound.sound(".repeat(3_000) + "sound"
                        + ")".repeat(3_000) + "; }\n",
                "quay/Long.java",
                "package quay;\nclass Long { Gauge sound; Object o = sound" + ".sound(sound)".repeat(3_000) + "; }\n",
                "quay/Angles.java",
                "package quay;\nclass Angles { " + "A<".repeat(20_000) + " sound; Object o = x.sound(); }\n",
                "quay/Chain.java",
                "package quay;\n" + types + "class Chain { void go(T0 t) { t.sound(null); } }\n",
                "quay/Round.java",
                "package quay;\nclass Round<T extends Round<T>> extends Square<T> { void go() { sound(this); } }\nclass Square<T> extends Round<T> {}\n",
                "quay/Broken.java",
                "package quay;\nclass Broken { void go( { ) } ] sound( . sound :: sound ( < > ? new sound new -> sound case sound , import sound @sound(sound=");
        assertThat(code.uses("Gauge.sound").symbols()).isGreaterThan(9_000);
    }

    private List<String> lines(String expression) {
        LineAnswer answer = new LineSearch(
                        CompiledQuery.of(ExpressionParser.parse(expression).query(), CaseMode.AUTO),
                        1_000,
                        0,
                        LineAnswer.Position.START,
                        true,
                        LineSearch.Order.PATH,
                        LineSearch.Show.LINES)
                .run(code.library().context());
        return answer.page().stream()
                .flatMap(file -> file.excerpts().stream())
                .flatMap(excerpt -> excerpt.lines().stream())
                .filter(line -> !line.matches().isEmpty())
                .map(line -> line.text().strip())
                .toList();
    }
}
