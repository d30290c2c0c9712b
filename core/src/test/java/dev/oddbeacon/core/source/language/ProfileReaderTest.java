package dev.oddbeacon.core.source.language;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.outline.Outlines;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ProfileReaderTest {
    @Test
    void everyProfileIsOfTypesThatThereAre() {
        Language.all()
                .values()
                .forEach(language -> assertThat(language.types())
                        .as(language.name())
                        .isNotEmpty()
                        .allMatch(FileTypes::isKnown));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "declare class klass",
                "colour blue",
                "string \" \" escaped",
                "structure round",
                "reserved a a",
                "embed script"
            })
    void aMistakeIsNamedWithItsProfileAndLine(String line) {
        assertThatThrownBy(() -> ProfileReader.read("mine", List.of("types c", line)))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("mine.profile")
                .hasMessageContaining(line);
    }

    /** The indented lines that follow a line of a page. */
    private static List<String> block(List<String> page, String after) {
        return page.subList(page.indexOf(after) + 2, page.size()).stream()
                .takeWhile(line -> line.startsWith("    "))
                .map(line -> line.substring(4))
                .toList();
    }

    @Test
    void theLanguageOfTheDocumentationWorks() throws IOException {
        List<String> page = Files.readAllLines(Path.of("..", "docs", "adding-a-language.md"));
        Language buoy = ProfileReader.read("buoy", block(page, "Its whole profile:"));
        String text = String.join(
                "\n",
                block(
                        page,
                        "A made-up language of harbour masters, in files `*.buoy`, added to `file-types.txt` as `buoy Buoy | *.buoy |`:"));
        Found found = new Found();
        List<String> declared = Outlines.of(buoy, text.getBytes(StandardCharsets.UTF_8), Lexer::new, found).stream()
                .map(one -> one.kind().label() + " " + text.substring(one.nameStart(), one.nameEnd()) + " in "
                        + one.parent())
                .toList();
        assertThat(declared).containsExactly("class Outer in -1", "supertype Inner in 0", "field red in 0");
        assertThat(found.region(0)).isEqualTo(Region.COMMENT);
        assertThat(text.substring(found.regionStart(1), found.regionEnd(1))).isEqualTo("\"low \\\"tide\\\"\"");
    }

    @Test
    void aWordWithAMeaningIsFoundByItsBytes() {
        Language language = ProfileReader.read(
                "mine", List.of("types c", "ignore-case", "reserved begin", "declare proc function"));
        byte[] text = "xBEGINx proc".getBytes(StandardCharsets.UTF_8);
        assertThat(language.table().find(text, 1, 6, WordTable.hash(text, 1, 6)).role())
                .isEqualTo(Word.Role.RESERVED);
        assertThat(language.table()
                        .find(text, 8, 12, WordTable.hash(text, 8, 12))
                        .role())
                .isEqualTo(Word.Role.DECLARES);
        assertThat(language.table().find(text, 0, 7, WordTable.hash(text, 0, 7)))
                .isSameAs(Word.NONE);
        assertThat(language.isName("Begin")).isFalse();
    }
}
