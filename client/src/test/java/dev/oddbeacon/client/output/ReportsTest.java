package dev.oddbeacon.client.output;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.Problem;
import dev.oddbeacon.api.SecondLooks.Look;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReportsTest {
    private static Look look(
            String text, String reading, String caseMode, boolean word, Map<String, List<String>> scope) {
        return new Look("changed", text, reading, caseMode, word, scope, 1, 1, true);
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '`',
            value = {
                "tide, oddbeacon lines tide",
                "two words, oddbeacon lines 'two words'",
                "it's, `oddbeacon lines 'it'\\''s'`",
                "-Wall, oddbeacon lines -- '-Wall'",
                "$HOME, oddbeacon lines '$HOME'",
                "a*b, oddbeacon lines 'a*b'",
                "é, oddbeacon lines 'é'",
                "src/a_b.c:1, oddbeacon lines src/a_b.c:1"
            })
    void aSecondLookCanBePastedIntoAShell(String text, String command) {
        assertThat(SecondLooksReport.command(look(text, "plain", "auto", false, Map.of()), Optional.empty()))
                .isEqualTo(command);
    }

    @Test
    void aSecondLookKeepsWhatItDidNotChange() {
        Map<String, List<String>> scope = new HashMap<>(Map.of(
                "repo",
                List.of("fare-gate", "tide*"),
                "label",
                List.of("port"),
                "branch",
                List.of("main"),
                "under",
                List.of("src/**"),
                "notUnder",
                List.of("old stuff"),
                "type",
                List.of("java"),
                "trait",
                List.of("test"),
                "notTrait",
                List.of("generated"),
                "except",
                List.of("no tests"),
                "lift",
                List.of("usual")));
        scope.putAll(Map.of("file", List.of(), "changedAfter", List.of("2w"), "region", List.of("comment")));
        assertThat(SecondLooksReport.command(look("a.b", "regex", "ignore", true, scope), Optional.empty()))
                .isEqualTo(
                        "oddbeacon lines --regex --case ignore --word --repo fare-gate --repo 'tide*' --label port --branch main --under 'src/**' --not-under 'old stuff' --type java --trait test "
                                + "--not-trait generated --except 'no tests' --lift usual --changed 2w --region comment a.b");
    }

    @Test
    void mistakesStandUnderTheirPlace() {
        Problem.Mistake mistake = new Problem.Mistake("A closing parenthesis is missing.", 4, 3, "tide (a)", false);
        assertThat(Mistakes.describe("tide (a", List.of(mistake)))
                .isEqualTo("A closing parenthesis is missing.\n  tide (a\n      ^^^\n  perhaps: tide (a)");
    }

    @Test
    void aMistakeFarBehindShowsWhatIsAroundIt() {
        String text = "x".repeat(500) + "(" + "y".repeat(500);
        String[] lines = Mistakes.describe(text, List.of(new Problem.Mistake("Here.", 500, 1, null, false)))
                .split("\n");
        assertThat(lines).hasSize(3);
        assertThat(lines[1].charAt(lines[2].indexOf('^'))).isEqualTo('(');
        assertThat(lines[1].length()).isLessThan(200);
    }

    @Test
    void aMistakeAtTheEndPointsBehindTheText() {
        assertThat(Mistakes.describe("a and", List.of(new Problem.Mistake("Something must follow.", 5, 0, null, true))))
                .endsWith("\n  a and\n       ^");
    }

    @Test
    void csvIsQuotedWhereItMustBe() {
        Columns<String[]> columns = new Columns<>();
        for (int i = 0; i < 6; i++) {
            int column = i;
            columns.add("column " + i, fields -> fields[column]);
        }
        assertThat(columns.header()).isEqualTo("column 0,column 1,column 2,column 3,column 4,column 5");
        assertThat(columns.record(new String[] {"a", "b,c", "say \"tide\"", " x", "\u001b[31m", null}))
                .isEqualTo("a,\"b,c\",\"say \"\"tide\"\"\",\" x\",\u241b[31m,");
    }
}
