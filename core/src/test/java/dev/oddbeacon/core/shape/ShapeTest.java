package dev.oddbeacon.core.shape;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Language;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ShapeTest {
    private static List<ShapeFinder.Match> find(String language, String code, Shape shape, boolean ignoresCase) {
        Language of = Language.named(language).orElseThrow();
        byte[] utf8 = code.getBytes(StandardCharsets.UTF_8);
        return new ShapeFinder(shape.byLanguage(ignoresCase), () -> false)
                .find(
                        utf8,
                        of,
                        new Elements.RegionsFound(
                                new Analyser().analyse(of, utf8).found()));
    }

    private static List<String> texts(String language, String code, String shape, String... without) {
        byte[] utf8 = code.getBytes(StandardCharsets.UTF_8);
        return find(language, code, new Shape(shape, List.of(without)), false).stream()
                .map(match -> new String(utf8, match.start(), match.end() - match.start(), StandardCharsets.UTF_8))
                .toList();
    }

    private static String bound(String language, String code, String shape, String variable) {
        byte[] utf8 = code.getBytes(StandardCharsets.UTF_8);
        ShapeFinder.Span span = find(language, code, new Shape(shape, List.of()), false)
                .getFirst()
                .bound()
                .get(variable);
        return new String(utf8, span.start(), span.end() - span.start(), StandardCharsets.UTF_8);
    }

    @Test
    void aVariableBehindTheLastTokenOfAFileStandsForNothing() {
        assertThat(texts("go", "a;".repeat(127) + "g =", "g = ?x")).isEmpty(); // 256 tokens
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "java | assign(stay, null);                     | assign(?a, null)      | assign(stay, null)",
                "java | assign(of(a, b)[1], null);              | assign(?a, null)      | assign(of(a, b)[1], null)",
                "java | assign(a, b, null);                     | assign(?a, null)      | ",
                "java | reassign(stay, null);                   | assign(?a, null)      | ",
                "java | // assign(stay, null)                   | assign(?a, null)      | ",
                "java | s = ~assign(stay, null)~;               | assign(?a, null)      | ",
                "java | a == b;                                 | ?x = ?y               | ",
                "java | x <= y;                                 | ?a < ?b               | ",
                "java | a.b().c == null && d == null;           | ?x == null            | a.b().c == null; d == null",
                "java | a + b * c;                              | ?x * ?y               | b * c",
                "java | a + b * c;                              | ?x + ?y               | a + b * c",
                "java | f(x -> { y(x); });                      | f(?g)                 | f(x -> { y(x); })",
                "java | int n = 3; String s = ~a~;              | String ?x = ~a~;      | String s = ~a~;",
                "java | a = b ? c : d;                          | ?c ? ?x : ?y          | b ? c : d",
                "java | a = (int) b + 1;                        | ?x + 1                | (int) b + 1",
                "java | new HashMap<String, Integer>(9);        | new ?t(?n)            | new HashMap<String, Integer>(9)",
                "python | x = f(a, b=1) if c else g()           | f(?a, ?b)             | f(a, b=1)",
                "python | if a is not None and b: pass          | ?x is not None        | a is not None",
                "python | log(~a~ % b) # log(~a~ % c)           | log(~a~ % ?x)         | log(~a~ % b)",
                "go | v, err := f(x)                            | err := f(?x)          | err := f(x)",
                "go | if x == y { z() }                         | ?a == ?b              | x == y",
                "go | return Point{X: 1}                        | return ?x             | return Point{X: 1}",
                "typescript | const a = b?.c ?? d               | ?x ?? ?y              | b?.c ?? d",
                "typescript | f(async () => { await g() })      | f(?x)                 | f(async () => { await g() })",
                "typescript | let a = `x ${f(b, c)} y`          | f(?x, ?y)             | f(b, c)",
                "typescript | g(`x ${f(b, c)} y`, 1)            | g(?x, ?y)             | g(`x ${f(b, c)} y`, 1)",
                "kotlin | val x = list.map { it + 1 }.first()   | ?x.first()            | list.map { it + 1 }.first()",
                "rust | let x = foo()?.bar()?;                  | let ?x = ?y;          | let x = foo()?.bar()?;",
                "rust | if a == b { c } else { d }              | if ?x { ?*a } else { ?*b } | if a == b { c } else { d }",
                "c | free(p); *p = 0;                           | free(?p)              | free(p)",
                "c | free(node->left); node->left = NULL;       | free(?p); ?p = NULL;  | free(node->left); node->left = NULL;",
                "c | if ((fd = open(a, b)) < 0) return;         | ?x = open(?*a)        | fd = open(a, b)",
                "php | <?php $a = array(1, 2); foo($b);         | foo(?x)               | foo($b)",
                "php | <?php $this->berth->free($a);            | ?x->free(?y)          | $this->berth->free($a)",
                "ruby | x = y.map(1).first                      | ?x.first              | y.map(1).first",
                "sql | SELECT a FROM b WHERE c = 1;             | select ?x from ?t     | SELECT a FROM b",
                "css | a { color: red; }                        | color: ?x;            | color: red;"
            })
    void findsCodeOfAShape(String language, String code, String shape, String expected) {
        List<String> wanted = expected == null
                ? List.of()
                : Arrays.stream(expected.replace('~', '"').split("; (?=d)")).toList();
        assertThat(texts(language, code.replace('~', '"'), shape.replace('~', '"')))
                .isEqualTo(wanted);
    }

    @Test
    void oneNameIsOneText() {
        String code = "if (a) { b(1 , 2); } else { b( 1, /* two */ 2 ); } if (a) { b(1); } else { b(2); }";

        assertThat(texts("java", code, "if (?c) { ?*same } else { ?*same }"))
                .containsExactly("if (a) { b(1 , 2); } else { b( 1, /* two */ 2 ); }");
        assertThat(texts("java", "f(a, b) f(c.d(), c . d())", "f(?x, ?x)")).containsExactly("f(c.d(), c . d())");
        assertThat(texts("java", "f(a, b)", "f(?_, ?_)")).containsExactly("f(a, b)");
    }

    @Test
    void whatMustNotStandWithinIsLookedForWithTheSameVariables() {
        String code = """
                { a.lock(); try { work(); } finally { a.unlock(); } }
                { b.lock(); work(); a.unlock(); }
                """;

        assertThat(texts("java", code, "?l.lock(); ?*rest }", "?l.unlock()"))
                .containsExactly("b.lock(); work(); a.unlock(); }");
        assertThat(texts("java", code, "?l.lock(); ?*rest }", "?_.unlock()")).isEmpty();
        assertThat(texts("java", code, "?l.lock(); ?*rest }", "work()", "close()"))
                .isEmpty();
    }

    @Test
    void whatAVariableStandsForIsTold() {
        assertThat(bound("java", "if (a && b.c(d)) {}", "if (?x) {}", "x")).isEqualTo("a && b.c(d)");
        assertThat(bound("java", "f(/* no */ a /* yes */ + b, c)", "f(?*all)", "all"))
                .isEqualTo("a /* yes */ + b, c");
        assertThat(bound("java", "f()", "f(?*all)", "all")).isEmpty();
        assertThat(bound("go", "x := a.b(c)\nd(e)", "?x := ?y", "y")).isEqualTo("a.b(c)");
        assertThat(bound("java", "return (Stay) a.b(c) + 1;", "return ?x", "x")).isEqualTo("(Stay) a.b(c) + 1");
    }

    @Test
    void matchesMayStandWithinMatches() {
        assertThat(texts("java", "f(f(a))", "f(?x)")).containsExactly("f(f(a))", "f(a)");
    }

    @Test
    void aQuestionMarkThatNoNameFollowsIsItself() {
        assertThat(texts("java", "List<?> a = b ? c : d;", "List<?> a = ?x;")).hasSize(1);
        assertThat(texts("typescript", "type A = { b?: c }", "b?: ?t")).hasSize(1);
        assertThat(new Shape("a?b", List.of()).names()).isEmpty();
        assertThat(texts("java", "s(\"?x\")", "s(\"?x\")")).containsExactly("s(\"?x\")");
        assertThat(texts("java", "s(\"y\")", "s(\"?x\")")).isEmpty();
    }

    @Test
    void caseCountsUnlessToldOrTheLanguageDoesNotMindIt() {
        assertThat(find("java", "Assign(a)", new Shape("assign(?x)", List.of()), false))
                .isEmpty();
        assertThat(find("java", "Assign(a)", new Shape("assign(?x)", List.of()), true))
                .hasSize(1);
        assertThat(find("java", "ÄGIR(a)", new Shape("ägir(?x)", List.of()), true))
                .hasSize(1);
    }

    @Test
    void codeInsideOfMarkupIsFound() {
        String page = "<script>\nberth.assign('north', null)\n</script>\n<p>assign('north', null)</p>\n";

        assertThat(texts("vue", page, "assign('north', ?x)")).contains("assign('north', null)");
    }

    @Test
    void bracketsThatNothingClosesEndNothingElse() {
        assertThat(texts("c", "#if A\nif (x) {\n#else\nif (y) {\n#endif\nf(1);\n}\n", "f(?x)"))
                .hasSize(1);
        assertThat(texts("java", "f(a, g(b", "g(?x")).containsExactly("g(b");
        assertThat(texts("java", ")))}}} f(a)", "f(?x)")).containsExactly("f(a)");
    }

    /** Each stretch of a text that closes its brackets is a shape that stands there, blanks and comments put anywhere. */
    @Test
    void anyCodeIsAShapeThatFindsItself() {
        String code = """
                for (Stay stay : stays) {
                    if (stay.depth() <= berth.depth() && !taken[stay.row() + 1]) {
                        plan.put(stay, new Berth<Stay>("no(r)th", 'x', 0x1F, 1.5));
                    } else {
                        rest = a >> 2 > b ? c++ : -d;
                    }
                }
                """;
        Random random = new Random(7);
        Tokens tokens = new Tokens(Language.named("java").orElseThrow());
        byte[] utf8 = code.getBytes(StandardCharsets.UTF_8);
        tokens.read(
                utf8,
                new Elements.RegionsFound(
                        new Analyser().analyse(tokens.language, utf8).found()),
                () -> false);
        for (int round = 0; round < 500; round++) {
            int first = random.nextInt(tokens.size());
            int last = first + random.nextInt(tokens.size() - first);
            StringBuilder shape = new StringBuilder();
            for (int token = first; token <= last; token++) {
                shape.append(tokens.text(token)).append(random.nextInt(4) == 0 ? " /* ( */\n " : " ");
            }
            int start = tokens.start(first);
            int end = tokens.end(last);

            assertThat(find("java", code, new Shape(shape.toString(), List.of()), false))
                    .as(shape.toString())
                    .anyMatch(match -> match.start() == start && match.end() == end);
        }
    }

    @Test
    void shapesThatCannotBeAreToldWhy() {
        assertThat(mistake("?x")).contains("besides its variables");
        assertThat(mistake("?x ?*y")).contains("besides its variables");
        assertThat(mistake("?*x + 1")).contains("go on for ever");
        assertThat(mistake("1 + ?*x ")).contains("go on for ever");
        assertThat(mistake("f(?x, ?*x)")).contains("give one of them another name");
        assertThat(mistake("f(?x, ?*y)")).isEmpty();
    }

    private static String mistake(String code) {
        return new Shape(code, List.of()).mistake().orElse("");
    }
}
