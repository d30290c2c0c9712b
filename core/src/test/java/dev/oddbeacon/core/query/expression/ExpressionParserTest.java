package dev.oddbeacon.core.query.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ExpressionParserTest {
    private static String reprinted(String expression) {
        ExpressionParser.Parsed parsed = ExpressionParser.parse(expression);
        assertThat(parsed.mistakes()).isEmpty();
        return ExpressionPrinter.print(parsed.query());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "a b; a b",
                "a and b; a b",
                "a AND b; a b",
                "a or b c; a or b c",
                "(a or b) c; (a or b) c",
                "not a b; not a b",
                "not (a b); not (a b)",
                "((a)); a",
                "a (b c); a b c",
                "a or (b or c); a or b or c",
                "\"a b\"; \"a b\"",
                "\"and\"; \"and\"",
                "\"a\"; a",
                "/a\\/b/; /a\\/b/",
                "/a b(c|d)/; /a b(c|d)/",
                "near(3,a,\"b c\"); near(3, a, \"b c\")",
                "line( a , b or c ); line(a, b or c)",
                "word(a b); word(a b)",
                "under(src/**); under(src/**)",
                "repo(\"a,b\"); repo(\"a,b\")",
                "a,b; \"a,b\"",
                "x=1; x=1",
                "foo.bar*; foo.bar*",
                "like(Tide); like(Tide)",
                "says(a) by( Mara ); says(a) by(Mara)",
                "adds(/x y/) not removes(\"a b\"); adds(/x y/) not removes(\"a b\")",
                "touches(src/*.c) after( 2024-01 ) before(2w); touches(src/*.c) after(2024-01) before(2w)",
                "changed( after:2023 ) a; changed(after: 2023) a",
                "holds(a or word(b)); holds(a or word(b))",
                "shape( assign(?a, null) ); shape(assign(?a, null))",
                "shape(f(\")\", ')', ?x)) b; shape(f(\")\", ')', ?x)) b",
                "shape(\"a\"); shape(a)",
                "shape(\"\\\"a\\\" + ?x\"); shape(\"\\\"a\\\" + ?x\")",
                "shape(\"f(?x\"); shape(\"f(?x\")",
                "shape(it's(?x)); shape(it's(?x))",
                "shape(?l.lock() ?*r }, without: ?l.unlock( )); shape(?l.lock() ?*r }, without: ?l.unlock( ))",
                "shape(a, b,without:c , without: \"d)\"); shape(a, b, without: c, without: \"d)\")",
                "not not a; not not a",
                "\"C:\\\\x\"; C:\\x"
            })
    void readsAndWrites(String expression, String normal) {
        assertThat(reprinted(expression)).isEqualTo(normal);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "a) b; 1; 1; closes nothing; a b",
                "or a; 0; 2; nothing before; a",
                "naer(3, a, b); 0; 4; no clause; near(3, a, b)",
                "foo(x) b; 0; 3; no clause; \"foo(x)\" b",
                "\"a\\q\"; 2; 2; no escape; \"a\\\\q\"",
                "()  a; 0; 2; nothing between; a",
                "/a(/ b; 2; 1; not closed; ~~",
                "near(x, a, b); 5; 1; number of words; ~~",
                "near(3, a); 9; 1; two texts; ~~",
                "near(3, a b, c); 0; 14; cannot stand; ~~",
                "like(a-b); 0; 8; one word; ~~",
                "repo(a b); 7; 1; nothing else; ~~",
                "* a; 0; 1; every word; \"*\" a"
            })
    void saysWhereAMistakeIsAndWhatWasPerhapsMeant(
            String expression, int position, int length, String words, String suggestion) {
        List<Mistake> mistakes = ExpressionParser.parse(expression).mistakes();
        assertThat(mistakes).isNotEmpty();
        Mistake first = mistakes.getFirst();
        assertThat(first.message()).contains(words);
        assertThat(first.unfinished()).isFalse();
        assertThat(List.of(first.position(), first.length())).containsExactly(position, length);
        assertThat(first.suggestion().orElse("")).isEqualTo(suggestion == null ? "" : suggestion);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "tide and; tide",
                "tide or; tide",
                "tide not; tide",
                "tide (surge; tide surge",
                "\"tide ga; \"tide ga\"",
                "tide near(; tide",
                "tide near(3, a; tide",
                "tide near(3, a, b; tide near(3, a, b)",
                "tide repo(; tide",
                "word(tide; word(tide)",
                "tide /ab; tide /ab/",
                "tide /a(b; tide"
            })
    void halfAnExpressionIsTakenAsFarAsItGoes(String expression, String normal) {
        ExpressionParser.Parsed parsed = ExpressionParser.parse(expression);
        assertThat(parsed.mistakes()).isNotEmpty().allMatch(Mistake::unfinished);
        assertThat(ExpressionPrinter.print(parsed.query())).isEqualTo(normal);
    }

    @Test
    void severalMistakesAreToldAtOnce() {
        assertThat(ExpressionParser.parse("foo(a) and bar(b) or (c").mistakes())
                .extracting(Mistake::position)
                .containsExactly(0, 11, 21);
    }

    @ParameterizedTest
    @ValueSource(strings = {"(", "near(", "not ", "word(", "\"", "/", "a or ", ")"})
    void whatIsTooMuchIsRefusedBeforeItTakesLong(String part) {
        String text = part.repeat(10_000 / part.length());
        List<Mistake> mistakes = assertTimeoutPreemptively(
                Duration.ofSeconds(5), () -> ExpressionParser.parse(text).mistakes());
        assertThat(mistakes).isNotEmpty();
    }

    @Test
    void aRegularExpressionThatIsTooLargeIsRefusedWhenItIsCompiledToo() {
        assertThatThrownBy(() -> CompiledQuery.of(new TextClause.Pattern("\\pL{500}"), CaseMode.IGNORE))
                .isInstanceOf(InvalidQueryException.class)
                .hasMessageContaining("60000 steps");
    }

    @Test
    void limitsAreSaid() {
        assertThat(ExpressionParser.parse("a ".repeat(251))
                        .mistakes()
                        .getFirst()
                        .message())
                .contains("more than 250 clauses");
        assertThat(ExpressionParser.parse("(".repeat(500) + "a" + ")".repeat(500))
                        .mistakes()
                        .getFirst()
                        .message())
                .contains("more than 100 deep");
        assertThatThrownBy(() -> new TextQuery("()", Reading.EXPRESSION, CaseMode.AUTO, false).understand(true))
                .isInstanceOf(InvalidQueryException.class);
        assertThatThrownBy(() -> new TextQuery("  ", Reading.EXPRESSION, CaseMode.AUTO, false).understand(true))
                .hasMessageContaining("asks for nothing");
    }
}
