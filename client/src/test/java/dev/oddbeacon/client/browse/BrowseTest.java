package dev.oddbeacon.client.browse;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.client.options.ReadingOptions;
import dev.oddbeacon.client.output.Names;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jline.utils.AttributedString;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class BrowseTest {
    private static final Names REMOTE = new Names(Optional.empty());
    private final BrowseState state = new BrowseState(
            new BrowseQuest(BrowseQuest.Subject.LINES, "tide", "plain", ReadingOptions.CaseMode.AUTO, false, ""));

    private static BrowseItem hit(String path, int line, String text, int match) {
        return new BrowseItem("fare-gate", "main", path, line, match + 1, text, List.of(new Match(match, match + 4)));
    }

    @BeforeEach
    void find() {
        state.found(
                state.quest(),
                List.of(
                        hit("a.go", 3, "\tlow tide", 5),
                        hit("a.go", 9, "tide", 0),
                        hit("b.go", 1, "tide\u001b[31m", 0)),
                "3 hits");
    }

    private List<String> drawn(int rows, int columns) {
        List<String> code = IntStream.rangeClosed(1, 40)
                .mapToObj(line -> line == 3 ? "\tlow tide" : "line " + line)
                .toList();
        return BrowseScreen.draw(state, REMOTE, code, rows, columns).lines().stream()
                .map(AttributedString::toString)
                .toList();
    }

    @Test
    void showsTheQuestionTheHitsAndTheCodeOfTheCurrentOne() {
        List<String> lines = drawn(20, 60);
        assertThat(lines)
                .hasSize(20)
                .allSatisfy(line -> assertThat(line.length()).isLessThanOrEqualTo(60));
        assertThat(lines.getFirst()).isEqualTo("lines, plain: tide");
        assertThat(lines.get(1)).isEqualTo("3 hits   in all repositories");
        assertThat(lines.subList(2, 5))
                .containsExactly(
                        "\u258c fare-gate/a.go:3  low tide",
                        "  fare-gate/a.go:9  tide",
                        "  fare-gate/b.go:1  tide\u241b[31m");
        assertThat(lines).anySatisfy(line -> assertThat(line).isEqualTo("\u258c    3      low tide"));
    }

    @Test
    void fitsAnySize() {
        for (int rows = 6; rows < 40; rows += 3) {
            for (int columns = 20; columns < 200; columns += 17) {
                int most = columns;
                assertThat(drawn(rows, columns))
                        .hasSize(rows)
                        .allSatisfy(line -> assertThat(line.length()).isLessThanOrEqualTo(most));
            }
        }
    }

    @Test
    void keysEditTheTextAndTheScope() {
        state.type("s");
        state.moveCaret(-1);
        state.type("\u26f4");
        assertThat(state.quest().text()).isEqualTo("tide\u26f4s");
        state.moveCaret(1);
        state.moveCaret(1);
        state.backspace();
        state.backspace();
        assertThat(state.quest().text()).isEqualTo("tide");
        state.switchEdited();
        state.type("--type go");
        state.switchEdited();
        assertThat(state.quest())
                .isEqualTo(new BrowseQuest(
                        BrowseQuest.Subject.LINES, "tide", "plain", ReadingOptions.CaseMode.AUTO, false, "--type go"));
    }

    @Test
    void stepsFromHitToHitAndFromFileToFile() {
        state.move(-1);
        assertThat(state.current()).isZero();
        state.moveFile(1);
        assertThat(state.item().orElseThrow().path()).isEqualTo("b.go");
        state.moveFile(1);
        assertThat(state.current()).isEqualTo(2);
        state.moveFile(-1);
        assertThat(state.current()).isZero();
    }

    @Test
    void leavesWithTheChosenLinesOrTheCurrentOne() {
        assertThat(state.taken()).extracting(BrowseItem::line).containsExactly(3);
        state.move(2);
        state.choose();
        state.move(-2);
        state.choose();
        assertThat(state.taken()).extracting(BrowseItem::line).containsExactly(1, 3);
    }

    @Test
    void whatCannotBeAskedLeavesWhatWasFound() {
        state.failed("missing closing )");
        assertThat(drawn(12, 80))
                .anySatisfy(line -> assertThat(line).startsWith("missing closing )"))
                .anySatisfy(line -> assertThat(line).contains("low tide"));
    }
}
