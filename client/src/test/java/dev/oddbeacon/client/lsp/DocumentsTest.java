package dev.oddbeacon.client.lsp;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.TextDocumentContentChangeEvent;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Documents as the editor changes them. */
class DocumentsTest {
    private static final String URI = "file:///quay/tide%20%231.c";
    private static final Path FILE = Path.of("/quay/tide #1.c");

    private final Documents documents = new Documents();

    private String text() {
        return documents.at(FILE).orElseThrow().text();
    }

    private void change(int line, int column, int toLine, int toColumn, String with) {
        documents.change(
                URI,
                List.of(new TextDocumentContentChangeEvent(
                        new Range(new Position(line, column), new Position(toLine, toColumn)), with)),
                2);
    }

    @Test
    void areFoundByTheirFiles() {
        documents.open(URI, "a\r\nb", 1);
        assertThat(text()).isEqualTo("a\nb");
        documents.close(URI);
        assertThat(documents.at(FILE)).isEmpty();
        assertThat(Documents.file("untitled:1")).isEmpty();
        assertThat(Documents.file("no address at all")).isEmpty();
    }

    @Test
    void takeEditsInUtf16UnitsAndBeyondTheirEnds() {
        documents.open(URI, "ü🚢x\nsecond", 1);
        change(0, 1, 0, 3, "");
        assertThat(text()).isEqualTo("üx\nsecond");
        change(0, 99, 0, 99, "!");
        assertThat(text()).isEqualTo("üx!\nsecond");
        change(7, 0, 9, 0, "\nthird");
        assertThat(text()).isEqualTo("üx!\nsecond\nthird");
        documents.change(URI, List.of(new TextDocumentContentChangeEvent("all anew")), 3);
        assertThat(text()).isEqualTo("all anew");
    }

    @RepeatedTest(100)
    void areWhatAnEditorHasAfterManyEdits(RepetitionInfo run) {
        Random random = new Random(run.getCurrentRepetition());
        StringBuilder expected = new StringBuilder("tide\n\nebb and flow\nslack");
        documents.open(URI, expected.toString(), 1);
        for (int i = 0; i < 20; i++) {
            int start = random.nextInt(expected.length() + 1);
            int end = Math.min(expected.length(), start + random.nextInt(6));
            String with = List.of("", "x", "\n", "y\nz").get(random.nextInt(4));
            Position from = position(expected, start);
            Position to = position(expected, end);
            change(from.getLine(), from.getCharacter(), to.getLine(), to.getCharacter(), with);
            expected.replace(start, end, with);
            assertThat(text()).isEqualTo(expected.toString());
        }
    }

    private static Position position(StringBuilder text, int offset) {
        String before = text.substring(0, offset);
        return new Position((int) before.chars().filter(c -> c == '\n').count(), offset - before.lastIndexOf('\n') - 1);
    }
}
