package dev.oddbeacon.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.outline.Declaration;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Texts that no compiler takes: half files, mutations, monsters. Whatever they are, analysis ends, and what it says
 * fits the text.
 */
class HostileTextTest {
    private static final long SEED = 20261124;
    private static final String SIGNS = "{}()[]<>\"'`/*#;:=,\\\n$@ax0\0";
    private static final Analyser ANALYSER = new Analyser();

    static Stream<Language> languages() {
        return Language.all().values().stream().sorted((a, b) -> a.name().compareTo(b.name()));
    }

    private static void check(Language language, byte[] text) {
        Analysis analysis = ANALYSER.analyseOrFail(language, text);
        Found found = analysis.found();
        int before = 0;
        for (int i = 0; i < found.regions(); i++) {
            assertThat(found.regionStart(i)).isBetween(before, text.length);
            assertThat(found.regionEnd(i)).isBetween(found.regionStart(i) + 1, text.length);
            before = found.regionEnd(i);
        }
        before = 0;
        for (int i = 0; i < found.names(); i++) {
            assertThat(found.nameStart(i)).isBetween(before, text.length);
            assertThat(found.nameEnd(i)).isBetween(found.nameStart(i) + 1, text.length);
            before = found.nameEnd(i);
        }
        List<Declaration> declarations = analysis.declarations();
        int last = -1;
        for (int i = 0; i < declarations.size(); i++) {
            Declaration one = declarations.get(i);
            assertThat(one.nameStart()).isGreaterThan(last).isLessThan(one.nameEnd());
            assertThat(one.start()).isBetween(0, one.nameStart());
            assertThat(one.headEnd()).isBetween(one.nameEnd(), one.end());
            assertThat(one.end()).isLessThanOrEqualTo(text.length);
            assertThat(one.parent()).isBetween(-1, declarations.size() - 1).isNotEqualTo(i);
            last = one.nameStart();
        }
    }

    private static byte[] sample(Language language) throws IOException {
        try (InputStream in = SamplesTest.class.getResourceAsStream("samples/" + language.name() + ".txt")) {
            byte[] bytes = in == null
                    ? Objects.requireNonNull(SamplesTest.class.getResourceAsStream("samples/cpp.txt"))
                            .readAllBytes()
                    : in.readAllBytes();
            return new String(bytes, StandardCharsets.UTF_8)
                    .replaceAll("«\\w+ ([^»]+)»", "$1")
                    .getBytes(StandardCharsets.UTF_8);
        }
    }

    @ParameterizedTest
    @MethodSource("languages")
    void partsAndMutationsOfASample(Language language) throws IOException {
        byte[] sample = sample(language);
        Random random = new Random(SEED);
        for (int round = 0; round < 1_000; round++) {
            int from = random.nextInt(sample.length);
            byte[] part = Arrays.copyOfRange(sample, round % 3 == 0 ? from : 0, round % 3 == 0 ? sample.length : from);
            for (int i = 0; i < part.length && i < random.nextInt(8); i++) {
                part[random.nextInt(part.length)] = (byte) SIGNS.charAt(random.nextInt(SIGNS.length()));
            }
            check(language, part);
        }
    }

    @ParameterizedTest
    @MethodSource("languages")
    void monsters(Language language) {
        for (String opening : List.of(
                "{",
                "(",
                "[",
                "<",
                "class A {",
                "function f() {",
                "if x then ",
                "do ",
                "${",
                "\"${",
                "`${",
                "/* ",
                "\"",
                "'",
                "\"\"\"",
                "<<END ",
                "r#\"",
                "$a$",
                "#if X\n",
                "a = ",
                "@",
                "<div id=",
                "<textarea>",
                "import { type A, ",
                "default ",
                "- ",
                "# ",
                "|\n ",
                "a<b,",
                "q{",
                "%w[",
                "x: {",
                "* ",
                "/",
                "s/",
                "=begin\n",
                "--[[",
                "`",
                "\\",
                "'a ",
                "\"\\(")) {
            check(language, opening.repeat(20_000).getBytes(StandardCharsets.UTF_8));
        }
        check(language, "x = y; ".repeat(300_000).getBytes(StandardCharsets.UTF_8)); // a line of 2 MB
        check(language, ("class " + "a".repeat(10_000) + " { int b; }").getBytes(StandardCharsets.UTF_8));
        check(language, new byte[] {0, '{', (byte) 0xC3, '(', (byte) 0xFF, '"', 0, '\n', (byte) 0xE2, (byte) 0x82});
        check(language, new byte[0]);
        byte[] noise = new byte[200_000];
        new Random(SEED).nextBytes(noise);
        check(language, noise);
    }
}
