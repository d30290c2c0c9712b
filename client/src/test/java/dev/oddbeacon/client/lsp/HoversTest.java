package dev.oddbeacon.client.lsp;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.client.worktree.LineMap;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The comment of a declaration. */
class HoversTest {
    private static Optional<String> comment(String path, String text, int line) {
        return Hovers.comment(
                new Source("tidewatch", "", path, Optional.empty(), text, Optional.of(LineMap.SAME)), line);
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '$',
            value = {
                "A.java | /**~ * The tide.~ * Twice a day.~ */~@Deprecated~class A {} | 6 | The tide.~Twice a day.",
                "A.java | // The tide.~class A {} | 2 | The tide.",
                "a.go | // Tide tells it.~func Tide() {} | 2 | Tide tells it.",
                "a.py | def tide():~    \"\"\"The tide.\"\"\"~    return 1 | 1 | The tide.",
                "a.py | # The tide.~def tide():~    return 1 | 2 | The tide.",
                "a.sql | -- The tide.~create table tide (id int); | 2 | The tide.",
            },
            delimiter = '|')
    void standsAboveItOrBelow(String path, String text, int line, String expected) {
        assertThat(comment(path, text.replace('~', '\n'), line)).contains(expected.replace('~', '\n'));
    }

    @Test
    void isNotThatOfSomethingElse() {
        assertThat(comment("A.java", "// Of the class.\nclass A {\n\n    int b;\n}\n", 4))
                .isEmpty();
        assertThat(comment("A.java", "int a = 1; // Of this line.\nint b;\n", 2))
                .isEmpty();
    }
}
