package dev.oddbeacon.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.outline.Declaration;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Hand-written samples with the awkward cases of each language. In a sample, «kind name» stands for a name that is
 * declared there.
 */
class SamplesTest {
    private static final Pattern MARKED = Pattern.compile("«(\\w+) ([^»]+)»");

    @ParameterizedTest
    @ValueSource(
            strings = {
                "kotlin",
                "go",
                "rust",
                "cpp",
                "csharp",
                "swift",
                "scala",
                "ruby",
                "php",
                "shell",
                "sql",
                "lua",
                "perl",
                "css",
                "sass",
                "json",
                "yaml",
                "toml",
                "properties",
                "ini",
                "markdown",
                "make",
                "dockerfile",
                "html",
                "xml",
                "vue"
            })
    void everythingDeclaredIsFoundAndNothingElse(String name) throws IOException {
        String sample;
        try (InputStream in =
                Objects.requireNonNull(SamplesTest.class.getResourceAsStream("samples/" + name + ".txt"))) {
            sample = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        StringBuilder text = new StringBuilder();
        List<String> expected = new ArrayList<>();
        Matcher matcher = MARKED.matcher(sample);
        int at = 0;
        while (matcher.find()) {
            text.append(sample, at, matcher.start());
            expected.add(line(text) + " " + matcher.group(1) + " " + matcher.group(2));
            text.append(matcher.group(2));
            at = matcher.end();
        }
        byte[] utf8 = text.append(sample.substring(at)).toString().getBytes(StandardCharsets.UTF_8);
        List<String> found = new ArrayList<>();
        for (Declaration declaration : new Analyser()
                .analyseOrFail(Language.named(name).orElseThrow(), utf8)
                .declarations()) {
            if (!declaration.kind().isUse()) {
                String before = new String(utf8, 0, declaration.nameStart(), StandardCharsets.UTF_8);
                found.add(line(before) + " " + declaration.kind().label() + " "
                        + new String(
                                utf8,
                                declaration.nameStart(),
                                declaration.nameEnd() - declaration.nameStart(),
                                StandardCharsets.UTF_8));
            }
        }
        assertThat(found).containsExactlyElementsOf(expected);
    }

    private static int line(CharSequence before) {
        return (int) before.chars().filter(c -> c == '\n').count() + 1;
    }
}
