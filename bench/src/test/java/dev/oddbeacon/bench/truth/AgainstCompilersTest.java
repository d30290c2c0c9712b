package dev.oddbeacon.bench.truth;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.language.Language;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The comparison with the JDK's compiler over our own sources, and with what other parsers have said. */
class AgainstCompilersTest {
    @Test
    void javaIsWhatItsCompilerSays() throws IOException {
        Agreement agreement = AgainstCompilers.java(Path.of("..", "core", "src"), 1_000);
        assertThat(agreement.files()).isGreaterThan(100);
        assertThat(agreement.precision()).as(agreement.examples()).isGreaterThanOrEqualTo(0.99);
        assertThat(agreement.recall()).as(agreement.examples()).isGreaterThanOrEqualTo(0.99);
        assertThat(agreement.regions()).as(agreement.examples()).isGreaterThanOrEqualTo(0.999);
    }

    /** What the scripts in {@code truth} have written of files with the awkward cases of their languages. */
    @ParameterizedTest
    @ValueSource(
            strings = {"cpp", "go", "html", "kotlin", "lua", "php", "ruby", "rust", "scala", "shell", "svelte", "vue"})
    void othersAreWhatTheirParsersSaid(String script) throws IOException {
        Agreement agreement = AgainstCompilers.dumped(
                Language.named(AgainstCompilers.language(script)).orElseThrow(),
                Path.of("src/test/resources/dev/oddbeacon/bench/truth", script + ".dump"));
        assertThat(agreement.files()).isPositive();
        assertThat(agreement.precision()).as(agreement.examples()).isEqualTo(1);
        assertThat(agreement.recall()).as(agreement.examples()).isEqualTo(1);
        assertThat(agreement.ends()).as(agreement.examples()).isEqualTo(1);
        assertThat(agreement.containers()).as(agreement.examples()).isEqualTo(1);
        assertThat(agreement.regions()).as(agreement.examples()).isGreaterThanOrEqualTo(0.999);
    }
}
