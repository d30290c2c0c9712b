package dev.oddbeacon.bench.truth;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.meaning.Certainty;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is said of uses in our own core, against the JDK's compiler: a smaller version of what the benchmark compares. */
class UsesAgainstCompilersTest {
    private static final Path CORE = Path.of("../core/src/main/java");
    private static final Path RECORDED = Path.of("src/test/resources/dev/oddbeacon/bench/truth/uses");
    /** So many of each kind that what happens to be drawn hardly matters. */
    private static final int DRAWN = 300;

    @Test
    void usesAndRelativesInJavaAreWhatTheCompilerSays() throws IOException {
        CompilerUses told = JavaUses.of(CORE, System.getProperty("java.class.path"));
        UsesAgreement agreement = UsesAgainstCompilers.of(CORE, told, DRAWN);

        assertThat(agreement.byKind()).containsOnlyKeys("method", "field");
        agreement.byKind().forEach((kind, counts) -> {
            assertThat(counts.declarations).as(kind).isEqualTo(DRAWN);
            assertThat(counts.precision(Certainty.SURE)).as(kind).isGreaterThanOrEqualTo(0.98);
            assertThat(counts.recall(Certainty.LIKELY)).as(kind).isGreaterThanOrEqualTo(0.95);
        });

        RelativesAgreement relatives = UsesAgainstCompilers.relatives(CORE, told, 60);
        assertThat(relatives.byQuestion()).containsOnlyKeys("extends", "is extended by", "overrides", "family");
        relatives.byQuestion().forEach((question, counts) -> {
            assertThat(counts.so).as(question).isGreaterThan(20);
            assertThat(counts.precision()).as(question).isGreaterThanOrEqualTo(0.98);
            assertThat(counts.recall()).as(question).isGreaterThanOrEqualTo(0.98);
        });
    }

    /** What the scripts {@code bench/truth/uses-…} said of small modules, with the awkward cases of their languages. */
    @ParameterizedTest
    @CsvSource({"go, 0.97", "typescript, 0.8"})
    void usesAreWhatCompilersSaid(String language, double sure) throws IOException {
        UsesAgreement agreement = UsesAgainstCompilers.of(
                RECORDED.resolve(language), CompilerUses.read(RECORDED.resolve(language + ".dump")), 100);

        assertThat(agreement.byKind()).containsOnlyKeys("method", "field", "function");
        agreement.byKind().forEach((kind, counts) -> {
            assertThat(counts.uses).as(kind).isGreaterThanOrEqualTo(4);
            assertThat(counts.precision(Certainty.SURE)).as(kind).isEqualTo(1);
            assertThat(counts.recall(Certainty.SURE)).as(kind).isGreaterThanOrEqualTo(sure);
            assertThat(counts.recall(Certainty.LIKELY)).as(kind).isEqualTo(1);
        });
    }
}
