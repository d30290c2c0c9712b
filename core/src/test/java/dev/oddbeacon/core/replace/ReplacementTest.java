package dev.oddbeacon.core.replace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands instead of a match. */
class ReplacementTest {
    private static String with(
            Reading reading, String text, String template, boolean keepsCase, String in, String match) {
        TextQuery query = new TextQuery(text, reading, CaseMode.AUTO, false);
        int start = in.indexOf(match);
        return Replacement.of(query, template, keepsCase)
                .of(in, start, start + match.length())
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({
        "feet\\((\\d+)\\), metres($1 * 0.3048), x = feet(12);, feet(12), metres(12 * 0.3048)",
        "(?P<unit>feet)_(\\w+), $2_${unit}, depth feet_total, feet_total, total_feet",
        "fee(t)(s)?, $0[$2]$$, feet, feet, feet[]$",
        "^int, long, 'a\nint b', int, long",
        "fee(t), $x $1, FEET here, FEET, $x T",
    })
    void takesGroupsOfARegularExpression(String regex, String template, String in, String match, String expected) {
        assertThat(with(Reading.REGEX, regex, template, false, in.replace("\\n", "\n"), match))
                .isEqualTo(expected);
    }

    @Test
    void takesAPlainTextAsItStands() {
        assertThat(with(Reading.PLAIN, "feet", "$1 ${x} $$", false, "feet", "feet"))
                .isEqualTo("$1 ${x} $$");
    }

    @ParameterizedTest
    @CsvSource({"FEET, METRES", "Feet, Metres", "feet, metres", "fEET, metres", "F, Metres"})
    void keepsTheCaseOfAMatchIfThatIsWanted(String match, String expected) {
        assertThat(with(Reading.PLAIN, "feet", "metres", true, match, match)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"$3", "${name}", "${1", "$9"})
    void refusesGroupsThatThereAreNot(String template) {
        TextQuery query = new TextQuery("(a)(b)", Reading.REGEX, CaseMode.AUTO, false);
        assertThatThrownBy(() -> Replacement.of(query, template, false)).isInstanceOf(InvalidQueryException.class);
    }
}
