package dev.oddbeacon.server.results;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.Result;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What came and what went, held against a count of texts, and against edits of which is known what they did. */
class ChangesTest {
    private static Result line(String path, int number, String text) {
        return new Result("tide", "main", "c0ffee", path, number, null, text);
    }

    @Test
    void aLineThatMovesIsTheSame() {
        Changes changes = Changes.between(
                List.of(line("a.c", 3, "depth = feet(1);"), line("a.c", 9, "depth = feet(1);")),
                List.of(line("a.c", 40, "  depth = feet(1);"), line("a.c", 60, "depth = feet(1);")));
        assertThat(changes.came()).isEmpty();
        assertThat(changes.went()).isEmpty();
        assertThat(changes.stayed()).hasSize(2);
    }

    @Test
    void oneMoreOfTheSameTextHasCome() {
        Changes changes = Changes.between(
                List.of(line("a.c", 3, "feet")), List.of(line("a.c", 3, "feet"), line("a.c", 4, "feet")));
        assertThat(changes.came()).containsExactly(line("a.c", 4, "feet"));
        assertThat(changes.went()).isEmpty();
    }

    @Test
    void aLineOfARenamedFileIsTheSameAndAnEditedOneToo() {
        Changes changes = Changes.between(
                List.of(line("old/a.c", 3, "depth = feet(1);"), line("b.c", 7, "show(depth, feet, sign, 12);")),
                List.of(line("new/a.c", 3, "depth = feet(1);"), line("b.c", 8, "show(depth, feet, sign, 14);")));
        assertThat(changes.came()).isEmpty();
        assertThat(changes.stayed())
                .containsEntry(
                        line("b.c", 7, "show(depth, feet, sign, 12);"), line("b.c", 8, "show(depth, feet, sign, 14);"));
    }

    @Test
    void otherBranchesOtherNamesAndOtherLinesAreOthers() {
        Result use = new Result("tide", "main", "c0ffee", "a.c", 3, "feet", "feet(1)");
        Result onBranch = new Result("tide", "release", "c0ffee", "a.c", 3, "feet", "feet(1)");
        Result ofAnother = new Result("skiff", "main", "c0ffee", "a.c", 3, "feet", "feet(1)");
        Result named = new Result("tide", "main", "c0ffee", "a.c", 3, "yards", "feet(1)");
        for (Result other : List.of(onBranch, ofAnother, named, line("a.c", 3, "quite another thing here"))) {
            assertThat(Changes.between(List.of(use), List.of(other)).came()).containsExactly(other);
        }
    }

    @Test
    void commitsAndFilesAreToldByWhatNamesThem() {
        Result commit = new Result("tide", null, "aaaa", null, null, null, "Feet");
        Result rewritten = new Result("tide", null, "bbbb", null, null, null, "Feet");
        Result file = new Result("tide", "main", "aaaa", "a.txt", null, null, null);
        Result later = new Result("tide", "main", "bbbb", "a.txt", null, null, null);
        assertThat(Changes.between(List.of(commit, file), List.of(later, rewritten))
                        .came())
                .containsExactly(rewritten);
    }

    /** Lines with words of their own, so that no two are alike: what was kept, removed and added is known. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void whatIsAddedComesAndWhatIsRemovedGoes(long seed) {
        Random random = new Random(seed);
        List<Result> before = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            before.add(line("f" + random.nextInt(20) + ".c", i + 1, "w" + random.nextInt(90) + " a" + i / 2));
        }
        List<Result> now = new ArrayList<>();
        Map<String, Integer> balance = new HashMap<>(); // of each text
        for (Result result : before) {
            boolean stays = random.nextInt(5) > 0;
            boolean moves = random.nextInt(4) == 0;
            if (stays) {
                now.add(line(
                        moves ? "moved/" + result.path() : result.path(),
                        result.line() + random.nextInt(50),
                        result.text()));
            } else {
                balance.merge(result.text(), -1, Integer::sum);
            }
        }
        for (int i = 0; i < 40; i++) {
            Result added = line("f" + random.nextInt(20) + ".c", 1_000 + i, "new x" + seed + "y" + i);
            now.add(added);
            balance.merge(added.text(), 1, Integer::sum);
        }
        Collections.shuffle(now, random);
        Changes changes = Changes.between(before, now);
        assertThat(changes.came().size() + changes.stayed().size()).isEqualTo(now.size());
        assertThat(changes.went().size() + changes.stayed().size()).isEqualTo(before.size());
        Map<String, Integer> told = new HashMap<>();
        changes.came().forEach(result -> told.merge(result.text(), 1, Integer::sum));
        changes.went().forEach(result -> told.merge(result.text(), -1, Integer::sum));
        balance.values().removeIf(count -> count == 0);
        told.values().removeIf(count -> count == 0);
        assertThat(told).isEqualTo(balance);
        assertThat(changes.stayed())
                .allSatisfy((earlier, later) -> assertThat(later.text()).isEqualTo(earlier.text()));
    }

    @Test
    void manyInOneFileTakeNoLongerThanTheyMust() {
        List<Result> before = IntStream.range(0, 100_000)
                .mapToObj(i -> line("a.c", i, "one " + i))
                .toList();
        List<Result> now = IntStream.range(0, 100_000)
                .mapToObj(i -> line("a.c", i, "two " + i))
                .toList();
        assertThat(Changes.between(before, now).came()).hasSize(100_000);
    }

    @Test
    void whatIsKeptIsReadAsItWas() {
        List<Result> results =
                List.of(line("ä/\"b\".c", 1, "tab\there \u2028"), new Result("t", null, "c", null, null, null, "x"));
        assertThat(ResultLines.decompress(ResultLines.compress(results))).isEqualTo(results);
    }
}
