package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;

class FindInTextTest {
    private static final String TEXT = "Low tide\nü😀 low Tide, lowest\nTI\n";

    private static List<String> found(String text, Reading reading, CaseMode caseMode, boolean word) {
        return FindInText.of(
                        new TextQuery(text, reading, caseMode, word),
                        TEXT.getBytes(StandardCharsets.UTF_8),
                        100,
                        () -> false)
                .stream()
                .map(match -> TEXT.substring(match.start(), match.end()))
                .toList();
    }

    @Test
    void speaksTheDialectOfSearches() {
        assertThat(found("(?i)low", Reading.REGEX, CaseMode.MATCH, false)).containsExactly("Low", "low", "low");
        assertThat(found("\\Qtide\\E", Reading.REGEX, CaseMode.IGNORE, false)).containsExactly("tide", "Tide");
        assertThat(found("[[:upper:]]{2}", Reading.REGEX, CaseMode.AUTO, false)).containsExactly("TI");
        assertThat(found("\\p{L}+$", Reading.REGEX, CaseMode.AUTO, false)).containsExactly("tide", "lowest", "TI");
    }

    @Test
    void placesAreUnitsOfTheTextWhateverItsCharacters() {
        assertThat(found("low", Reading.PLAIN, CaseMode.MATCH, false)).containsExactly("low", "low");
        assertThat(found("low", Reading.PLAIN, CaseMode.IGNORE, true)).containsExactly("Low", "low");
        assertThat(found("😀", Reading.PLAIN, CaseMode.MATCH, false)).containsExactly("😀");
    }

    @Test
    void emptyMatchesAreNotToldAndExpressionsNotTaken() {
        assertThat(found("x*", Reading.REGEX, CaseMode.MATCH, false)).isEmpty();
        assertThatThrownBy(() -> found("low and tide", Reading.EXPRESSION, CaseMode.MATCH, false))
                .isInstanceOf(InvalidQueryException.class);
    }
}
