package dev.oddbeacon.core.replace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What stands instead of code of a shape. */
class ShapeReplacementTest {
    private static ShapeReplacement of(String expression, String template) {
        return ShapeReplacement.of(
                new TextQuery(expression, Reading.EXPRESSION, CaseMode.AUTO, false)
                        .understand(false)
                        .query(),
                template,
                () -> false);
    }

    private static String replaced(String expression, String template, String text) {
        List<ShapeReplacement.Change> changes =
                of(expression, template).in(text, Language.named("java"), Integer.MAX_VALUE);
        StringBuilder result = new StringBuilder();
        int at = 0;
        for (ShapeReplacement.Change change : changes) {
            result.append(text, at, change.start()).append(change.with());
            at = change.end();
        }
        return result.append(text.substring(at)).toString();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "shape(assign(?a, null)) | unassign(?a)      | x(assign(b.c(d, e), null)); | x(unassign(b.c(d, e)));",
                "shape(f(?x, ?*rest))    | g(?*rest, ?x)     | f(a,  b /* two */, c)       | g(b /* two */, c, a)",
                "shape(f(?*all))         | g(0?*all)         | f()                         | g(0?*all)",
                "shape(f(?*all))         | g(?*all)          | f()                         | g()",
                "shape(f(?x))            | ?x                | f(f(1)) + f(2)              | f(1) + 2",
                "shape(?x == null)       | isNull(?x)        | a && b.c() == null          | a && isNull(b.c())",
                "shape(?x == ?x)         | true              | \uD83D\uDEA2 a == a; b == c     | \uD83D\uDEA2 true; b == c",
                "anycase(shape(F(?x)))   | g(?x)             | f(1)                        | g(1)",
                "shape(f(?x)) type(java) not under(src) | g(?x) | f(1)                     | g(1)"
            })
    void putsWhatVariablesStandFor(String expression, String template, String text, String expected) {
        assertThat(replaced(expression, template, text.replace("\\uD83D\\uDEA2", "\uD83D\uDEA2")))
                .isEqualTo(expected.replace("\\uD83D\\uDEA2", "\uD83D\uDEA2"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"g(?y)", "g(?*x)", "g(?_)", "g(?*)"})
    void refusesVariablesThatTheShapeHasNot(String template) {
        assertThatThrownBy(() -> of("shape(f(?x))", template))
                .isInstanceOf(InvalidQueryException.class)
                .hasMessageContaining("It has ?x.");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"a b", "shape(f(?x)) shape(g(?x))", "not shape(f(?x))", "holds(shape(f(?x)))", "shape(f(?x)) a"})
    void refusesWhatIsNotOneShape(String expression) {
        assertThatThrownBy(() -> of(expression, "x"))
                .isInstanceOf(InvalidQueryException.class)
                .hasMessageContaining("one shape( )");
    }

    @Test
    void findsNothingInATextWithoutALanguage() {
        assertThat(of("shape(f(?x))", "x").in("f(1)", Language.named("none"), 9))
                .isEmpty();
        assertThat(of("shape(f(?x))", "x").in("f(1) f(2)", Language.named("java"), 1))
                .hasSize(1);
    }
}
