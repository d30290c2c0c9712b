package dev.oddbeacon.core.source.language;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.source.FileTypes;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ProfileReaderTest {
    @Test
    void everyProfileIsOfTypesThatThereAre() {
        Language.all().values().forEach(language -> assertThat(language.types()).as(language.name()).allMatch(FileTypes::isKnown));
    }

    @ParameterizedTest
    @ValueSource(strings = {"declare class klass", "colour blue", "string \" \" escaped", "structure round", "reserved a a", "embed script"})
    void aMistakeIsNamedWithItsProfileAndLine(String line) {
        assertThatThrownBy(() -> ProfileReader.read("mine", List.of("types c", line))).isInstanceOf(IllegalStateException.class).hasMessageContaining("mine.profile").hasMessageContaining(line);
    }

    @Test
    void aWordWithAMeaningIsFoundByItsBytes() {
        Language language = ProfileReader.read("mine", List.of("types c", "ignore-case", "reserved begin", "declare proc function"));
        byte[] text = "xBEGINx proc".getBytes(java.nio.charset.StandardCharsets.UTF_8);
        assertThat(language.table().find(text, 1, 6, WordTable.hash(text, 1, 6)).role()).isEqualTo(Word.Role.RESERVED);
        assertThat(language.table().find(text, 8, 12, WordTable.hash(text, 8, 12)).role()).isEqualTo(Word.Role.DECLARES);
        assertThat(language.table().find(text, 0, 7, WordTable.hash(text, 0, 7))).isSameAs(Word.NONE);
        assertThat(language.isName("Begin")).isFalse();
    }
}
