package dev.oddbeacon.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

class LiteralScannerTest {
    private static List<String> matches(String text, String literal, boolean ignoreCase, ByteScan scan) {
        MemorySegment bytes = MemorySegment.ofArray(text.getBytes(StandardCharsets.UTF_8));
        LiteralScanner scanner = LiteralScanner.of(literal, ignoreCase, scan);
        List<String> found = new ArrayList<>();
        long at = scanner.find(bytes, 0, bytes.byteSize());
        while (at >= 0) {
            long end = scanner.end(bytes, at, bytes.byteSize());
            found.add(at + Utf8.string(bytes, at, end));
            at = scanner.find(bytes, end, bytes.byteSize());
        }
        return found;
    }

    private static List<String> matches(String text, String literal, boolean ignoreCase) {
        return matches(text, literal, ignoreCase, new VectorByteScan());
    }

    @Nested
    class IgnoringCase {
        @Test
        void findsLettersWhoseFormsDifferInLength() {
            assertThat(matches("sk SK \u017F\u212A", "sk", true)).containsExactly("0sk", "3SK", "6\u017F\u212A");
            assertThat(matches("tasK tas\u212A Ta\u017Fk", "task", true)).hasSize(3);
        }

        @Test
        void findsScriptsWithCaseBeyondAscii() {
            assertThat(matches("Паром паром ПАРОМ", "паром", true)).hasSize(3);
            assertThat(matches("stra\u1E9Ee STRA\u00DFE", "stra\u00DFe", true)).hasSize(2);
            assertThat(matches("\uD801\uDC00 \uD801\uDC28", "\uD801\uDC28", true))
                    .hasSize(2);
        }

        @Test
        void keepsTheTurkishLettersApart() {
            assertThat(matches("i I \u0130 \u0131", "i", true)).containsExactly("0i", "2I");
        }
    }

    @Test
    void matchesDoNotOverlap() {
        assertThat(matches("aaaaa", "aa", false)).containsExactly("0aa", "2aa");
    }

    @Test
    void findsAtBothEndsAndAcrossTheWidthOfARegister() {
        for (int length = 1; length < 200; length++) {
            String text = "x".repeat(length) + "needle";
            assertThat(matches(text, "needle", false)).containsExactly(length + "needle");
            assertThat(matches(text + "y".repeat(length), "NEEDLE", true)).containsExactly(length + "needle");
        }
    }

    @Test
    void anEmptyTextCannotBeScannedFor() {
        assertThatThrownBy(() -> LiteralScanner.of("", false)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void theVectorAndThePlainFormAgree() {
        long seed = Long.getLong("oddbeacon.seed", 7L);
        System.out.println("literal scanner property test: seed " + seed);
        Random random = new Random(seed);
        for (int round = 0; round < 5_000; round++) {
            String text = random(random, random.nextInt(300));
            String literal = random(random, 1 + random.nextInt(4));
            boolean ignoreCase = random.nextBoolean();
            assertThat(matches(text, literal, ignoreCase, new VectorByteScan()))
                    .as("seed %d: <%s> in <%s>", seed, literal, text)
                    .isEqualTo(matches(text, literal, ignoreCase, new PlainByteScan()));
        }
    }

    private static String random(Random random, int length) {
        String[] alphabet = {
            "a",
            "A",
            "b",
            "k",
            "K",
            "s",
            "\u212A",
            "\u00E9",
            "\u00C9",
            "\u20AC",
            "\uD83D\uDEA2",
            " ",
            "\n",
            "[",
            "{",
            "@",
            "`"
        };
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < length; i++) {
            text.append(alphabet[random.nextInt(alphabet.length)]);
        }
        return text.toString();
    }
}
