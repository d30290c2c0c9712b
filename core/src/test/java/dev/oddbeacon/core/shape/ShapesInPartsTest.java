package dev.oddbeacon.core.shape;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.language.Language;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Looking only at parts of a text, about a word, finds what looking at all of it finds. */
class ShapesInPartsTest {
    private static final long SEED = Long.getLong("oddbeacon.seed", 20_261_201L);
    private static final String[] FORMS = {
        "%s(?*)",
        "?x = %s(?*);",
        "?x.%s(?*)",
        "%s(?a, ?*)",
        "!%s(?x)",
        "if (%s(?*)) { ?* }",
        "return %s ?* ;",
        "?x.%s(?*); ?*rest }",
        "%s(?*) { ?* }, without",
        "?a + %s",
        "%s ?b = ?c",
        "?x(?*, %s)",
        "%s ?* %s",
        "(?a) -> %s(?*)",
        "%s == ?z || ?*",
        "?f %s { ?*same } ?* { ?*same }"
    };

    @Test
    void areFoundAsInTheWhole() throws IOException {
        Random random = new Random(SEED);
        int matches = 0;
        int searches = 0;
        for (Path file : sources()) {
            Optional<Language> language = Language.ofType(FileTypes.ofPath(file.toString()));
            if (language.isEmpty()) {
                continue;
            }
            byte[] text = Files.readAllBytes(file);
            String written = new String(text, StandardCharsets.UTF_8);
            Analysis analysis = new Analyser().analyse(language.get(), text);
            RegionSource regions = ShapeFinder.regions(analysis);
            for (Shape shape : shapes(written, language.get(), random)) {
                ShapesByLanguage byLanguage = shape.byLanguage(random.nextInt(4) == 0);
                List<ShapeFinder.Match> whole =
                        new ShapeFinder(byLanguage, () -> false, Integer.MAX_VALUE).find(text, language.get(), regions);
                int part = 1 << random.nextInt(11);
                assertThat(new ShapeFinder(byLanguage, () -> false, part).find(text, language.get(), regions))
                        .as("seed %d, %s in %s, parts of %d bytes", SEED, shape, file, part)
                        .isEqualTo(whole);
                matches += whole.size();
                searches++;
            }
        }
        assertThat(searches).isGreaterThan(2_000);
        assertThat(matches).isGreaterThan(500);
    }

    @Test
    @Timeout(20)
    void aLongLineOfCallsIsCutAFewTimes() {
        byte[] text = ("x(y);".repeat(100_000) + "\ncall(x); ".repeat(20_000) + "call(y);".repeat(100_000))
                .getBytes(StandardCharsets.UTF_8);
        Language language = Language.named("java").orElseThrow();
        RegionSource regions = ShapeFinder.regions(new Analyser().analyse(language, text));

        assertThat(new ShapeFinder(new Shape("call(?a)", List.of()).byLanguage(false), () -> false)
                        .find(text, language, regions))
                .hasSize(120_000);
    }

    @Test
    @Timeout(20)
    void manyMatchesInOneExpressionBeginWhereTheyDoInTheWhole() {
        byte[] text = ("a" + ".with(x + 1)".repeat(1_500) + ";").getBytes(StandardCharsets.UTF_8);
        Language language = Language.named("java").orElseThrow();
        RegionSource regions = ShapeFinder.regions(new Analyser().analyse(language, text));
        ShapesByLanguage shape = new Shape("?x.with(?*)", List.of()).byLanguage(false);

        assertThat(new ShapeFinder(shape, () -> false).find(text, language, regions))
                .isEqualTo(new ShapeFinder(shape, () -> false, Integer.MAX_VALUE).find(text, language, regions))
                .isNotEmpty();
    }

    private static List<Shape> shapes(String text, Language language, Random random) {
        List<Shape> shapes = new ArrayList<>();
        Set<String> words = new HashSet<>();
        for (String word : text.split("\\W+")) {
            if (word.length() > 2 && random.nextInt(20) == 0) {
                words.add(word);
            }
        }
        words.stream().sorted().limit(6).forEach(word -> {
            String form = FORMS[random.nextInt(FORMS.length)];
            String code = form.replace(", without", "").replace("%s", word);
            shapes.add(new Shape(code, form.contains("without") ? List.of("return ?*r") : List.of()));
        });
        int start = random.nextInt(Math.max(1, text.length()));
        String stretch = text.substring(start, Math.min(text.length(), start + 10 + random.nextInt(200)));
        ShapeOfCode.of(stretch, language).ifPresent(made -> {
            shapes.add(made.same());
            made.alike().ifPresent(shapes::add);
        });
        return shapes;
    }

    /** Our own, in several languages. */
    private static List<Path> sources() throws IOException {
        List<Path> found = new ArrayList<>();
        for (String folder : System.getProperty(
                        "shapes.sources", "src/main,../console/src,../demo/repositories,../bench/truth")
                .split(",")) {
            try (Stream<Path> files = Files.walk(Path.of(folder))) {
                files.filter(Files::isRegularFile)
                        .filter(file -> file.toFile().length() < 200_000)
                        .sorted()
                        .forEach(found::add);
            }
        }
        return found;
    }
}
