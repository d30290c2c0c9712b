package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.query.expression.ExpressionParser;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class HabitsTest {
    @ParameterizedTest
    @CsvSource(
            delimiterString = " => ",
            quoteCharacter = '^',
            value = {
                "tide -surge => tide not surge",
                "tide !surge => tide not surge",
                "+tide +surge => tide surge",
                "tide -\"storm surge\" => tide not \"storm surge\"",
                "tide AND surge => tide surge",
                "tide OR surge => tide or surge",
                "tide NOT surge => tide not surge",
                "tide && surge || gauge => tide surge or gauge",
                "repo:tidewatch surge => repo(tidewatch) surge",
                "lang:java berth => type(java) berth",
                "ext:.yaml berth => under(*.yaml) berth",
                "path:src/main berth => under(src/main) berth",
                "-path:docs berth => not under(docs) berth",
                "def:assign => declares(assign)",
                "class:BerthPlanner => declares(BerthPlanner)",
                "refs:assign => uses(assign)",
                "branch:winter-timetable tide => branch(winter-timetable) tide",
                "\"tide surge\"~4 => near(4, tide, surge)",
                "\"tide surge\"~ => near(1, tide, surge)",
                "tidde~ => like(tidde)",
                "tidde~2 => like(tidde)",
                "\"tide surge\" gauge => \"tide surge\" gauge",
                "tid* AND surge => tid* surge",
            })
    void areReadAsWhatWasPerhapsMeant(String asked, String meant) {
        assertThat(Habits.meant(asked)).contains(meant);
        assertThat(ExpressionParser.parse(meant).mistakes()).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tide surge",
                "x - y",
                "-",
                "--force",
                "http://quillhaven.example",
                "note: it is low",
                "a ~ b",
                "and or not",
                "OR",
                "AND",
                "repo:",
                "int x = -1;\nint y;",
            })
    void areNotNoticedWhereThereAreNone(String asked) {
        assertThat(Habits.meant(asked)).isEmpty();
    }
}
