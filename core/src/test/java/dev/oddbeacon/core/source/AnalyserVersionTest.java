package dev.oddbeacon.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import java.util.zip.CRC32C;
import org.junit.jupiter.api.Test;

/** Whoever changes what is told of a text raises the version of the analysis, or indexes of before never learn of it. */
class AnalyserVersionTest {
    private static final String TOLD = "version 5 tells 4253d705";

    private final CRC32C told = new CRC32C();

    private void tell(Object... facts) {
        for (Object fact : facts) {
            told.update((fact + "\n").getBytes(StandardCharsets.UTF_8));
        }
    }

    private static List<Path> samples() throws IOException, URISyntaxException {
        Path folder = Path.of(Objects.requireNonNull(AnalyserVersionTest.class.getResource("samples"))
                .toURI());
        try (Stream<Path> files = Files.list(folder)) {
            return files.sorted().toList();
        }
    }

    private void tell(Path sample) {
        String name = sample.getFileName().toString().replace(".txt", "");
        byte[] text = bytes(sample);
        Analysis analysis = new Analyser().analyseOrFail(Language.named(name).orElseThrow(), text);
        Found found = analysis.found();
        tell(name, analysis.declarations());
        for (int region = 0; region < found.regions(); region++) {
            tell(found.regionStart(region), found.regionEnd(region), found.region(region));
        }
        for (int use = 0; use < found.names(); use++) {
            tell(found.nameStart(use), found.nameEnd(use));
        }
    }

    private static byte[] bytes(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void isRaisedWhenTheSameTextsAreToldOtherwise() throws IOException, URISyntaxException {
        List<Path> samples = samples();
        assertThat(samples).hasSizeGreaterThan(20);
        samples.forEach(this::tell);
        FileTypes.all().forEach(this::tell);
        assertThat("version %d tells %08x".formatted(Analyser.VERSION, told.getValue()))
                .as("raise Analyser.VERSION, and say here what it tells")
                .isEqualTo(TOLD);
    }
}
