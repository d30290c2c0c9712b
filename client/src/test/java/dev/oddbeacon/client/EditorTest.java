package dev.oddbeacon.client;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EditorTest {
    private static final List<Editor.At> TWO = List.of(new Editor.At(Path.of("/w/a b.c"), 12, 5), new Editor.At(Path.of("/w/c.go"), 3, 1));

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "vim                       | vim,+12,/w/a b.c,+3,/w/c.go",
        "/usr/bin/emacs -nw        | /usr/bin/emacs,-nw,+12,/w/a b.c,+3,/w/c.go",
        "code --wait               | code,--wait,--goto,/w/a b.c:12:5,--goto,/w/c.go:3:1",
        "hx                        | hx,/w/a b.c:12:5,/w/c.go:3:1",
        "idea                      | idea,--line,12,--column,5,/w/a b.c,--line,3,--column,1,/w/c.go",
        "something-else            | something-else,/w/a b.c,/w/c.go",
        "\"/opt/my editor/vim\" -R | /opt/my editor/vim,-R,+12,/w/a b.c,+3,/w/c.go",
    })
    void isToldTheLineInItsOwnWay(String editor, String command) {
        assertThat(Editor.of(editor).commands(TWO)).containsExactly(List.of(command.split(",")));
    }

    @Test
    void aCommandThatNamesThePlaceIsRunForEachFile() {
        assertThat(Editor.of("kate -l {line} -c {column} {file}").commands(TWO)).containsExactly(List.of("kate", "-l", "12", "-c", "5", "/w/a b.c"), List.of("kate", "-l", "3", "-c", "1", "/w/c.go"));
    }
}
