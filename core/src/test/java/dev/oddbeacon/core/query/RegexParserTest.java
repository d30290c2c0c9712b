package dev.oddbeacon.core.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.Random;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RegexParserTest {
    private static Plan plan(String regex) {
        return RegexPlan.of(RegexParser.parse(regex).regex());
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', quoteCharacter = '"', value = {"ab(c; 2; not closed", "ab); 2; closes nothing", "*a; 0; nothing before", "a|+; 2; nothing before", "[ab; 0; not closed",
        "ab\\; 2; needs a character", "(?=a); 0; ahead and behind", "(a)\\1; 3; refer back", "a{3,2}; 1; smaller number", "a{1001}; 1; over 1000",
        "(a{1000}){1000}; 2; multiply", "\\xZZ; 0; hexadecimal"})
    void saysWhereAMistakeIsAndWhatToDo(String regex, int position, String words) {
        InvalidQueryException mistake = catchThrowableOfType(InvalidQueryException.class, () -> RegexParser.parse(regex));
        assertThat(mistake).hasMessageContaining(words);
        assertThat(mistake.position()).isEqualTo(position);
    }

    @Nested
    class ThePlan {
        @Test
        void needsTheLiteralsAroundWhatIsUnknown() {
            assertThat(plan("berth.*buffer")).isEqualTo(Plan.allOf(java.util.List.of(Plan.holds("berth"), Plan.holds("buffer"))));
            assertThat(plan("a+b")).isEqualTo(Plan.allOf(java.util.List.of(Plan.holds("a"), Plan.holds("ab"))));
            assertThat(plan("zq+xj+v")).isEqualTo(Plan.allOf(java.util.List.of(Plan.holds("zq"), Plan.holds("qxj"), Plan.holds("jv"))));
            assertThat(plan("(?:ab){2,3}c")).isEqualTo(Plan.allOf(java.util.List.of(Plan.holds("ab"), Plan.holds("abc"))));
        }

        @Test
        void namesTextsOfWhichEveryLineHasOne() {
            assertThat(plan("tide|tern\\d").alternatives()).containsExactlyInAnyOrder("tide", "tern");
            assertThat(plan("ab.*(?:tide|tern)").alternatives()).containsExactlyInAnyOrder("tide", "tern");
            assertThat(plan("tide|.").alternatives()).isEmpty();
        }

        @Test
        void multipliesSmallAlternatives() {
            assertThat(plan("ti[dl]e")).isEqualTo(Plan.anyOf(java.util.List.of(Plan.holds("tide"), Plan.holds("tile"))));
            assertThat(plan("colou?r")).isEqualTo(Plan.anyOf(java.util.List.of(Plan.holds("colour"), Plan.holds("color"))));
        }

        @Test
        void knowsNothingOfWhatMayBeAnything() {
            assertThat(plan(".*")).isEqualTo(Plan.ANYTHING);
            assertThat(plan("a*|b")).isEqualTo(Plan.ANYTHING);
            assertThat(plan("^$")).isEqualTo(Plan.ANYTHING);
        }

        @Test
        void readsQuotedTextAndEscapes() {
            assertThat(plan("\\Qa.b\\E")).isEqualTo(Plan.holds("a.b"));
            assertThat(plan("\\x41\\.\\t")).isEqualTo(Plan.holds("a.\t"));
        }
    }

    @Test
    void onlyLiteralCapitalsMakeCaseCount() {
        assertThat(RegexParser.parse("[A-Z]x").hasCapital()).isTrue();
        assertThat(RegexParser.parse("Tide").hasCapital()).isTrue();
        assertThat(RegexParser.parse("\\S\\W\\pL\\B[^\\D]").hasCapital()).isFalse();
    }

    /** Whatever RE2/J takes, the parser takes, but for what it refuses for its size. */
    @Test
    void refusesNothingThatTheReferenceTakes() {
        long seed = Long.getLong("oddbeacon.seed", 5L);
        System.out.println("regex parser property test: seed " + seed);
        Random random = new Random(seed);
        String[] atoms = {"a", "b", "(", ")", "[", "]", "*", "+", "?", "|", "\\", "{2}", "{1,3}", "^", "$", ".", "-", "(?:", "(?i)", "\\d", "\\pL", "[^a]", "[a-c]", "\\Q", "\\E", "}"};
        int valid = 0;
        for (int round = 0; round < 20_000; round++) {
            StringBuilder regex = new StringBuilder();
            for (int i = random.nextInt(8); i >= 0; i--) {
                regex.append(atoms[random.nextInt(atoms.length)]);
            }
            try {
                Pattern.compile(regex.toString());
            } catch (PatternSyntaxException e) {
                continue;
            }
            valid++;
            assertThat(RegexParser.parse(regex.toString())).as("seed %d: %s", seed, regex).isNotNull();
        }
        assertThat(valid).isGreaterThan(2_000);
    }
}
