package dev.oddbeacon.core.segment;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

class WordsBuilderTest {
    private static final String[] PARTS = {
        "tide",
        "Berth",
        "QUAY",
        "_",
        "a",
        "Z",
        "0",
        "9",
        "@",
        "[",
        "`",
        "{",
        "/",
        ":",
        "^",
        " ",
        "\n",
        "(",
        "\u007F",
        "x".repeat(9),
        "LONGER_than_eight",
        "w".repeat(63),
        "w".repeat(64),
        "w".repeat(65),
        "\u0001"
    };

    /**
     * Text of ASCII alone is taken eight bytes at a time: the words must be those that letters, digits and _ make up.
     */
    @Test
    void takesTheWordsOfAsciiText() throws IOException {
        long seed = Long.getLong("oddbeacon.seed", 91L);
        System.out.println("words property test: seed " + seed);
        Random random = new Random(seed);
        for (int round = 0; round < 3_000; round++) {
            StringBuilder text = new StringBuilder();
            for (int i = random.nextInt(30); i >= 0; i--) {
                text.append(PARTS[random.nextInt(PARTS.length)]);
            }
            boolean beyondAscii = random.nextInt(4) == 0;
            String whole = beyondAscii ? text + " \u00E9" : text.toString();
            TreeSet<String> expected = new TreeSet<>();
            for (String word : text.toString().split("[^A-Za-z0-9_]+")) {
                if (!word.isEmpty() && word.length() <= 64) {
                    expected.add(word.toLowerCase(Locale.ROOT));
                }
            }
            byte[] before = "before".getBytes(StandardCharsets.UTF_8);
            byte[] bytes = ("before" + whole + "after").getBytes(StandardCharsets.UTF_8);
            WordsBuilder words = new WordsBuilder();
            words.add(bytes, before.length, bytes.length - "after".length());
            List<String> found = new ArrayList<>();
            words.forEachSorted(
                    (all, start, end) -> found.add(new String(all, start, end - start, StandardCharsets.UTF_8)));
            found.remove("\u00E9");
            assertThat(found).as("seed %d: <%s>", seed, whole).containsExactlyElementsOf(expected);
        }
    }
}
