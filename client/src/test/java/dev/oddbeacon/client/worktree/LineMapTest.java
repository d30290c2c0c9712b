package dev.oddbeacon.client.worktree;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Lines that are told apart by what they say, so that where each went is known. */
class LineMapTest {
    @RepeatedTest(200)
    void everyLineThatStaysIsFoundWhereItWent(RepetitionInfo run) {
        Random random = new Random(run.getCurrentRepetition());
        List<String> before = new ArrayList<>();
        for (int i = 0; i < random.nextInt(40); i++) {
            before.add("line " + i);
        }
        List<String> after = new ArrayList<>();
        for (int i = 0; i <= before.size(); i++) {
            while (random.nextInt(6) == 0) {
                after.add("new " + random.nextInt());
            }
            if (i < before.size() && random.nextInt(5) > 0) {
                after.add(before.get(i));
            }
        }
        LineMap map = LineMap.between(String.join("\n", before), String.join("\n", after) + "\n");
        for (int i = 0; i < before.size(); i++) {
            int went = after.indexOf(before.get(i)) + 1;
            assertThat(map.after(i + 1).orElse(0)).as(before.get(i)).isEqualTo(went);
        }
        for (int i = 0; i < after.size(); i++) {
            assertThat(map.before(i + 1).orElse(0)).as(after.get(i)).isEqualTo(before.indexOf(after.get(i)) + 1);
        }
    }

    @Test
    void aLastLineWithoutItsEndIsTheSame() {
        assertThat(LineMap.between("a\nb", "new\na\nb\n").after(2)).hasValue(3);
        assertThat(LineMap.between("a\nb\n", "a\nb").after(2)).hasValue(2);
    }
}
