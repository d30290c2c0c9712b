package dev.oddbeacon.bench.truth;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.meaning.Certainty;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** What is said of uses in our own core, against the JDK's compiler: a smaller version of what the benchmark compares. */
class UsesAgainstCompilersTest {
    private static final Path CORE = Path.of("../core/src/main/java");
    private static final Path RECORDED = Path.of("src/test/resources/dev/oddbeacon/bench/truth/uses");

    @Test
    void usesInJavaAreWhatTheCompilerSays() throws IOException {
        UsesAgreement agreement = UsesAgainstCompilers.java(CORE, System.getProperty("java.class.path"), 40);

        assertThat(agreement.byKind()).containsOnlyKeys("method", "field");
        agreement.byKind().forEach((kind, counts) -> {
            assertThat(counts.declarations).as(kind).isEqualTo(40);
            assertThat(counts.precision(Certainty.SURE)).as(kind).isGreaterThanOrEqualTo(0.98);
            assertThat(counts.recall(Certainty.LIKELY)).as(kind).isGreaterThanOrEqualTo(0.95);
        });
    }

    /** What {@code bench/truth/uses-go.go} said of a small module, with the awkward cases of the language. */
    @Test
    void usesInGoAreWhatItsCompilerSaid() throws IOException {
        UsesAgreement agreement =
                UsesAgainstCompilers.of(RECORDED.resolve("go"), CompilerUses.read(RECORDED.resolve("go.dump")), 100);

        assertThat(agreement.byKind()).containsOnlyKeys("method", "field", "function");
        agreement.byKind().forEach((kind, counts) -> {
            assertThat(counts.uses).as(kind).isGreaterThanOrEqualTo(4);
            assertThat(counts.precision(Certainty.SURE)).as(kind).isEqualTo(1);
            assertThat(counts.recall(Certainty.SURE)).as(kind).isGreaterThan(0.97);
            assertThat(counts.recall(Certainty.LIKELY)).as(kind).isEqualTo(1);
        });
    }
}
