package dev.oddbeacon.core.text.regex;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RegexParserTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '"',
            value = {
                "ab(c; 2; not closed",
                "ab); 2; closes nothing",
                "*a; 0; nothing before",
                "a|+; 2; nothing before",
                "[ab; 0; not closed",
                "ab\\; 2; needs a character",
                "(?=a); 0; ahead and behind",
                "(a)\\1; 3; refer back",
                "a{3,2}; 1; smaller number",
                "a{1001}; 1; over 1000",
                "(a{1000}){1000}; 2; multiply",
                "\\xZZ; 0; hexadecimal"
            })
    void saysWhereAMistakeIsAndWhatToDo(String regex, int position, String words) {
        RegexSyntaxException mistake =
                catchThrowableOfType(RegexSyntaxException.class, () -> RegexParser.parse(regex, false));
        assertThat(mistake).hasMessageContaining(words);
        assertThat(mistake.position()).isEqualTo(position);
    }

    @Test
    void onlyLiteralCapitalsMakeCaseCount() {
        assertThat(RegexParser.parse("[A-Z]x", false).hasCapital()).isTrue();
        assertThat(RegexParser.parse("Tide", false).hasCapital()).isTrue();
        for (String oneCase :
                List.of("[[:upper:]]{2}", "\\p{Lu}+", "\\P{Lu}", "[\\p{Lt}x]", "[[:^lower:]]", "\\p{Ll}")) {
            assertThat(RegexParser.parse(oneCase, false).hasCapital())
                    .as(oneCase)
                    .isTrue();
        }
        assertThat(RegexParser.parse("\\S\\W\\pL\\B[^\\D]", false).hasCapital()).isFalse();
    }

    /** What RE2/J takes, the parser takes, but for what it refuses for its size; and nothing else. */
    @Test
    void takesWhatTheReferenceTakes() {
        long seed = Long.getLong("oddbeacon.seed", 5L);
        System.out.println("regex parser property test: seed " + seed);
        Random random = new Random(seed);
        String[] atoms = {
            "a",
            "b",
            "(",
            ")",
            "[",
            "]",
            "*",
            "+",
            "?",
            "|",
            "\\",
            "{2}",
            "{1,3}",
            "{03}",
            "{,2}",
            "^",
            "$",
            ".",
            "-",
            "(?:",
            "(?i)",
            "(?i-s:",
            "\\d",
            "\\pL",
            "\\PN",
            "[^a]",
            "[a-c]",
            "\\Q",
            "\\E",
            "}",
            "\\x41",
            "\\x{1F6A2}",
            "\\12",
            "\\1",
            "(?P<a>",
            "(?P<b>",
            "\\p{Greek}",
            "\\p{^Lu}",
            "\\p{Gre}",
            "[[:alpha:]]",
            "[:digit:]",
            "[[:^word:]]",
            "9",
            "_",
            "\u20AC",
            "z",
            "n",
            "x",
            "<",
            ":"
        };
        int valid = 0;
        for (int round = 0; round < 40_000; round++) {
            StringBuilder regex = new StringBuilder();
            for (int i = random.nextInt(7); i >= 0; i--) {
                regex.append(atoms[random.nextInt(atoms.length)]);
            }
            boolean expected = isTaken(() -> Pattern.compile(regex.toString()), PatternSyntaxException.class);
            valid += expected ? 1 : 0;
            assertThat(isTaken(() -> RegexParser.parse(regex.toString(), false), RegexSyntaxException.class))
                    .as("seed %d: %s", seed, regex)
                    .isEqualTo(expected);
        }
        assertThat(valid).isGreaterThan(4_000);
    }

    private static boolean isTaken(Runnable parse, Class<? extends RuntimeException> mistake) {
        try {
            parse.run();
            return true;
        } catch (RuntimeException e) {
            assertThat(e).isInstanceOf(mistake);
            return false;
        }
    }
}
