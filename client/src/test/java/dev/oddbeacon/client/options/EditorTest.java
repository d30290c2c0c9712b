package dev.oddbeacon.client.options;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.client.service.ServiceProblem;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EditorTest {
    private static final List<Editor.At> TWO =
            List.of(new Editor.At(Path.of("/w/a b.c"), 12, 5), new Editor.At(Path.of("/w/c.go"), 3, 1));

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "my-editor                  | +LINE FILE       | my-editor,+12,/w/a b.c,+3,/w/c.go",
                "/usr/bin/my-editor --wait  | file:line:column | /usr/bin/my-editor,--wait,/w/a b.c:12:5,/w/c.go:3:1",
                "\"/opt/my editor/run\" -R   | +line file       | /opt/my editor/run,-R,+12,/w/a b.c,+3,/w/c.go",
            })
    void isToldTheLineInTheFormThatWasChosen(String editor, String form, String command) {
        assertThat(Editor.of(editor, Editor.Form.of(form)).commands(TWO)).containsExactly(List.of(command.split(",")));
    }

    @Test
    void aCommandThatNamesThePlaceIsRunForEachFile() {
        assertThat(Editor.of("my-editor -l {line} -c {column} {file}", Editor.Form.PLUS)
                        .commands(TWO))
                .containsExactly(
                        List.of("my-editor", "-l", "12", "-c", "5", "/w/a b.c"),
                        List.of("my-editor", "-l", "3", "-c", "1", "/w/c.go"));
    }

    @Test
    void aFormThatThereIsNotIsRefusedWithThoseThatThereAre() {
        assertThatThrownBy(() -> Editor.Form.of("line file"))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("+LINE FILE or FILE:LINE:COLUMN");
    }
}
