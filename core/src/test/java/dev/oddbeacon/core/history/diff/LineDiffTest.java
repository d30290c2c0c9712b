package dev.oddbeacon.core.history.diff;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class LineDiffTest {
    private static TextLines lines(List<String> lines) {
        return new TextLines(String.join("", lines).getBytes(StandardCharsets.UTF_8));
    }

    private static List<String> text(Random random, int length, int distinct) {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < length; i++) {
            lines.add("    ".repeat(random.nextInt(2)) + random.nextInt(distinct) + "\n");
        }
        return lines;
    }

    private static List<String> changed(Random random, List<String> lines, int edits, int distinct) {
        List<String> result = new ArrayList<>(lines);
        for (int i = 0; i < edits; i++) {
            if (random.nextBoolean() && !result.isEmpty()) {
                result.remove(random.nextInt(result.size()));
            } else {
                result.add(
                        random.nextInt(result.size() + 1),
                        text(random, 1, distinct).getFirst());
            }
        }
        return result;
    }

    /** The oracle: the length of a longest common subsequence, by the table of all prefixes. */
    private static int common(List<String> a, List<String> b) {
        int[][] longest = new int[a.size() + 1][b.size() + 1];
        for (int i = 1; i <= a.size(); i++) {
            for (int k = 1; k <= b.size(); k++) {
                longest[i][k] = a.get(i - 1).equals(b.get(k - 1))
                        ? longest[i - 1][k - 1] + 1
                        : Math.max(longest[i - 1][k], longest[i][k - 1]);
            }
        }
        return longest[a.size()][b.size()];
    }

    @Test
    void theHunksTurnOneTextIntoTheOtherAndNoneIsLongerThanNeedBe() {
        Random random = new Random(11);
        for (int round = 0; round < 4_000; round++) {
            int distinct = 1 + random.nextInt(12);
            List<String> before = text(random, random.nextInt(40), distinct);
            List<String> after = random.nextInt(4) == 0
                    ? text(random, random.nextInt(40), distinct)
                    : changed(random, before, random.nextInt(12), distinct);
            List<String> made = new ArrayList<>();
            int at = 0;
            int edits = 0;
            int end = -1;
            for (LineDiff.Hunk hunk : LineDiff.hunks(lines(before), lines(after), TextLines.Sameness.EXACT)) {
                assertThat(hunk.oldStart()).as("hunks ascend and do not touch").isGreaterThan(end);
                assertThat(hunk.oldLines() + hunk.newLines()).isPositive();
                made.addAll(before.subList(at, hunk.oldStart()));
                assertThat(made).hasSize(hunk.newStart());
                made.addAll(after.subList(hunk.newStart(), hunk.newStart() + hunk.newLines()));
                end = at = hunk.oldStart() + hunk.oldLines();
                edits += hunk.oldLines() + hunk.newLines();
            }
            made.addAll(before.subList(at, before.size()));
            assertThat(made).isEqualTo(after);
            assertThat(edits).isEqualTo(before.size() + after.size() - 2 * common(before, after));
        }
    }

    @Test
    void whiteSpaceCountsNowhereIfItIsNotToCount() {
        List<String> before = List.of("if (a) {\n", "  b();\n", "}\n");
        List<String> after = List.of("if(a){\n", "\tb( );\n", "}\n");
        assertThat(LineDiff.hunks(lines(before), lines(after), TextLines.Sameness.WITHOUT_SPACE))
                .isEmpty();
        assertThat(LineDiff.hunks(lines(before), lines(after), TextLines.Sameness.EXACT))
                .containsExactly(new LineDiff.Hunk(0, 2, 0, 2));
    }

    @Test
    void textsWithNothingInCommonAreSoonDone() {
        Random random = new Random(5);
        List<String> before = text(random, 60_000, 300);
        List<String> after = text(random, 60_000, 300);
        List<String> made = new ArrayList<>();
        int at = 0;
        for (LineDiff.Hunk hunk : LineDiff.hunks(lines(before), lines(after), TextLines.Sameness.EXACT)) {
            made.addAll(before.subList(at, hunk.oldStart()));
            made.addAll(after.subList(hunk.newStart(), hunk.newStart() + hunk.newLines()));
            at = hunk.oldStart() + hunk.oldLines();
        }
        made.addAll(before.subList(at, before.size()));
        assertThat(made).isEqualTo(after);
    }
}
