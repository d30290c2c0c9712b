package dev.oddbeacon.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class CaseFoldingTest {
    /** RE2/J has folding tables of its own, of an older Unicode: what it joins, we join. */
    @Test
    void joinsWhateverTheReferenceMatcherJoins() {
        List<String> apart = new ArrayList<>();
        for (int codePoint = 'A'; codePoint < 0x10450; codePoint++) {
            if (Character.getType(codePoint) == Character.SURROGATE) {
                continue;
            }
            int lower = Character.toLowerCase(codePoint);
            int upper = Character.toUpperCase(codePoint);
            for (int other : new int[] {lower, upper}) {
                if (other != codePoint
                        && CaseFolding.fold(other) != CaseFolding.fold(codePoint)
                        && Pattern.compile("\\x{" + Integer.toHexString(codePoint) + "}", Pattern.CASE_INSENSITIVE)
                                .matches(Character.toString(other))) {
                    apart.add(Integer.toHexString(codePoint) + " " + Integer.toHexString(other));
                }
            }
        }
        assertThat(apart).isEmpty();
    }

    @Test
    void foldingTwiceIsFoldingOnce() {
        for (int codePoint = 0; codePoint <= Character.MAX_CODE_POINT; codePoint++) {
            int folded = CaseFolding.fold(codePoint);
            assertThat(CaseFolding.fold(folded)).isEqualTo(folded);
        }
    }
}
