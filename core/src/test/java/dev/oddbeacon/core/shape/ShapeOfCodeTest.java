package dev.oddbeacon.core.shape;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Language;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ShapeOfCodeTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "java | int depth = of(stay) + 3; // m | int depth = of(stay) + 3; | int ?depth = of(?stay) + ?number;",
                "java | a.put(a, ~b~, 'b', 2, 2);      | a.put(a, ~b~, 'b', 2, 2); | ?a.put(?a, ?text, ?text2, ?number, ?number);",
                "java | Stay.of(ROW)                   | Stay.of(ROW)              | ",
                "java | c?a:b                          | c? a:b                    | ?c? ?a:?b",
                "typescript | a = `x ${b} y`           | a = `x ${b} y`            | ?a = `x ${?b} y`",
                "vue | berth = 'north'                 | berth = 'north'           | ?berth = ?text",
                "python | x = y # comment              | x = y                     | ?x = ?y",
                "php | $this->free($a);                | $this->free($a);          | $?this->free($?a);"
            })
    void isTheCodeAndTheCodeWithVariables(String language, String code, String same, String alike) {
        ShapeOfCode shapes = ShapeOfCode.of(
                        code.replace('~', '"'), Language.named(language).orElseThrow())
                .orElseThrow();

        assertThat(shapes.same().code()).isEqualTo(same.replace('~', '"'));
        assertThat(shapes.alike().map(Shape::code).orElse(null)).isEqualTo(alike);
    }

    @Test
    void findsTheCodeThatItIsMadeOf() {
        Language java = Language.named("java").orElseThrow();
        String code = """
                for (int i = 0; i < rows.size(); i++) {
                    Row row = rows.get(i); // the next
                    sum += row.depth > 0 ? row.depth : missing("none");
                }
                """;
        byte[] text = ("class A { void a() { /* first */ " + code + " } void b() { "
                        + code.replace("rows", "lines").replace("none", "nothing") + " } }")
                .getBytes(StandardCharsets.UTF_8);
        ShapeOfCode shapes = ShapeOfCode.of(code, java).orElseThrow();

        assertThat(Stream.of(shapes.same(), shapes.alike().orElseThrow())
                        .map(shape -> new ShapeFinder(shape.byLanguage(false), () -> false)
                                .find(text, java, ShapeFinder.regions(new Analyser().analyse(java, text)))
                                .size()))
                .isEqualTo(List.of(1, 2));
        assertThat(ShapeOfCode.of("// only a comment", java)).isEmpty();
    }
}
