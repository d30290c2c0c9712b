package dev.oddbeacon.client.browse;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.client.options.ReadingOptions;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

class BrowseStateTest {
    private final BrowseState state = new BrowseState(
            new BrowseQuest(BrowseQuest.Subject.FILES, "", "fragments", ReadingOptions.CaseMode.AUTO, false, ""));

    private static BrowseItem file(String path, int matched) {
        return new BrowseItem("fare-gate", "main", path, 0, 1, path, List.of(new Match(0, matched)));
    }

    private void answer(int matched, String... paths) {
        state.found(
                state.quest(),
                Arrays.stream(paths).map(path -> file(path, matched)).toList(),
                paths.length + " files");
    }

    private String current() {
        return state.item().orElseThrow().path();
    }

    @Nested
    class AnAnswerThatComesLate {
        @Test
        void leavesWhoeverMovedWhereTheyAre() {
            state.type("tick");
            answer(4, "ticket.go", "ticket_test.go");
            state.move(1);
            answer(4, "ticket.go", "ticket_test.go");
            assertThat(current()).isEqualTo("ticket_test.go");
        }

        @Test
        void goesToTheFirstWhenTheOneBeforeIsNotFoundAgain() {
            state.type("tick");
            answer(4, "ticket.go", "ticket_test.go");
            state.move(1);
            answer(4, "ticket.go", "gate.go");
            assertThat(current()).isEqualTo("ticket.go");
        }

        @Test
        void toAnotherQuestionIsPassedOver() {
            state.type("tick");
            BrowseQuest old = state.quest();
            state.type("et");
            answer(6, "ticket.go");
            state.found(old, List.of(file("tick.go", 4)), "1 file");
            state.more(old, List.of(file("tock.go", 4)));
            state.failed(old, "too late");
            assertThat(state.items()).extracting(BrowseItem::path).containsExactly("ticket.go");
            assertThat(state.problem()).isEmpty();
        }
    }

    @Nested
    class AnotherQuestion {
        @Test
        void beginsAtTheFirstResult() {
            state.type("tick");
            answer(4, "a.go", "ticket.go");
            state.move(1);
            state.type("et");
            answer(6, "ticket_test.go", "ticket.go");
            assertThat(current()).isEqualTo("ticket_test.go");
        }

        @Test
        void keepsWhatWasChosen() {
            state.type("tick");
            answer(4, "ticket.go", "tick.go");
            state.choose();
            state.clear();
            state.type("gate");
            answer(4, "gate.go");
            state.choose();
            assertThat(state.taken()).extracting(BrowseItem::path).containsExactly("ticket.go", "gate.go");
        }
    }

    @Nested
    class Choosing {
        @Test
        void takesAPlaceOnceWhateverFoundIt() {
            state.type("tick");
            answer(4, "ticket.go", "ticket_test.go");
            state.choose();
            state.type("et");
            answer(6, "ticket.go", "ticket_test.go");
            assertThat(state.isChosen(state.items().getFirst())).isTrue();
            state.move(1);
            state.choose();
            assertThat(state.taken()).extracting(BrowseItem::path).containsExactly("ticket.go", "ticket_test.go");
        }

        @Test
        void twiceLetsGo() {
            answer(0, "ticket.go");
            state.choose();
            state.choose();
            assertThat(state.chosenCount()).isZero();
            assertThat(state.taken())
                    .as("the current one")
                    .extracting(BrowseItem::path)
                    .containsExactly("ticket.go");
        }
    }

    @Test
    void keysEditTheTextAtTheCaretByWholeCharacters() {
        state.type("a\uD83D\uDEA2b");
        state.moveCaret(-1);
        state.backspace();
        assertThat(state.edited()).isEqualTo("ab");
        assertThat(state.caret()).isEqualTo(1);
        state.switchEdited();
        state.type("--type go");
        assertThat(state.edited()).isEqualTo("--type go");
        assertThat(state.quest().scope()).as("until it is taken").isEmpty();
        state.takeScope();
        assertThat(state.quest().scope()).isEqualTo("--type go");
        assertThat(state.quest().text()).isEqualTo("ab");
        assertThat(state.edited()).isEqualTo("ab");
        state.switchEdited();
        state.type("lang");
        state.dropScope();
        assertThat(state.quest().scope()).isEqualTo("--type go");
        state.switchEdited();
        assertThat(state.edited()).isEqualTo("--type go");
    }

    @Test
    void movesByFilesAsWellAsByHits() {
        BrowseItem first = new BrowseItem("r", "main", "a", 1, 1, "x", List.of());
        BrowseItem second = new BrowseItem("r", "main", "a", 2, 1, "y", List.of());
        BrowseItem other = new BrowseItem("r", "main", "b", 1, 1, "z", List.of());
        state.found(state.quest(), List.of(first, second, other), "");
        state.moveFile(1);
        assertThat(state.item()).hasValue(other);
        state.moveFile(-1);
        assertThat(state.item()).hasValue(first);
    }
}
