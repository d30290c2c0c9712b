package dev.oddbeacon.core.query.matching;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.text.regex.RegexParser;
import java.util.List;
import org.junit.jupiter.api.Test;

class RegexPlanTest {
    private static Plan plan(String regex) {
        return RegexPlan.of(RegexParser.parse(regex, false).regex());
    }

    @Test
    void needsTheLiteralsAroundWhatIsUnknown() {
        assertThat(plan("berth.*buffer")).isEqualTo(Plan.allOf(List.of(Plan.holds("berth"), Plan.holds("buffer"))));
        assertThat(plan("a+b")).isEqualTo(Plan.allOf(List.of(Plan.holds("a"), Plan.holds("ab"))));
        assertThat(plan("zq+xj+v"))
                .isEqualTo(Plan.allOf(List.of(Plan.holds("zq"), Plan.holds("qxj"), Plan.holds("jv"))));
        assertThat(plan("(?:ab){2,3}c")).isEqualTo(Plan.allOf(List.of(Plan.holds("ab"), Plan.holds("abc"))));
        assertThat(plan("[0-9]{4}px").alternatives()).hasSize(10).contains("7px");
    }

    @Test
    void namesTextsOfWhichEveryLineHasOne() {
        assertThat(plan("tide|tern\\w").alternatives()).containsExactlyInAnyOrder("tide", "tern");
        assertThat(plan("ab.*(?:tide|tern)").alternatives()).containsExactlyInAnyOrder("tide", "tern");
        assertThat(plan("tide|.").alternatives()).isEmpty();
    }

    @Test
    void multipliesSmallAlternatives() {
        assertThat(plan("ti[dl]e")).isEqualTo(Plan.anyOf(List.of(Plan.holds("tide"), Plan.holds("tile"))));
        assertThat(plan("colou?r")).isEqualTo(Plan.anyOf(List.of(Plan.holds("colour"), Plan.holds("color"))));
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
