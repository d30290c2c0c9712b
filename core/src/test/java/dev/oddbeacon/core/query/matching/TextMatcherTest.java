package dev.oddbeacon.core.query.matching;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

class TextMatcherTest {
    /** The matches in a text, all of them or the first of each line. */
    private static List<String> matches(TextQuery query, String text, boolean firstOfLine) {
        MemorySegment bytes = MemorySegment.ofArray(text.getBytes(StandardCharsets.UTF_8));
        TextMatcher.Finder finder = CompiledQuery.of(
                        new TextQuery(query.text(), query.reading(), CaseMode.AUTO, query.word())
                                .understand(false)
                                .query(),
                        CaseMode.AUTO)
                .clauses()
                .getFirst()
                .finder(() -> false);
        finder.begin(bytes, 0, bytes.byteSize(), 0, bytes.byteSize());
        List<String> found = new ArrayList<>();
        while (finder.next()) {
            found.add(Utf8.string(bytes, finder.start(), finder.end()));
            if (firstOfLine) {
                finder.skipLine();
            }
        }
        return found;
    }

    private static List<String> plain(String query, String text) {
        return matches(new TextQuery(query, Reading.PLAIN, CaseMode.AUTO, false), text, false);
    }

    private static List<String> regex(String query, String text) {
        return matches(new TextQuery(query, Reading.REGEX, CaseMode.AUTO, false), text, false);
    }

    private static List<String> words(String query, Reading reading, String text) {
        return matches(new TextQuery(query, reading, CaseMode.AUTO, true), text, false);
    }

    @Nested
    class Plain {
        @Test
        void takesEveryCharacterLiterally() {
            assertThat(plain("$(a) [b].*\\", "x $(a) [b].*\\ y")).containsExactly("$(a) [b].*\\");
        }

        @Test
        void spansLinesAndDropsALastLineBreakOnly() {
            assertThat(plain("a\r\nb\n", "a\nb")).containsExactly("a\nb");
            assertThat(plain("a\n\n", "a\nb")).containsExactly("a\n");
            assertThat(plain(" a ", "a")).as("nothing else is trimmed").isEmpty();
        }

        @Test
        void mindsCaseWhenThereIsACapital() {
            assertThat(plain("tide", "tide Tide TIDE")).hasSize(3);
            assertThat(plain("Tide", "tide Tide TIDE")).hasSize(1);
        }
    }

    @Nested
    class Regex {
        @Test
        void staysOnALine() {
            assertThat(regex("a\\s*b", "a\nb a b")).containsExactly("a b");
            assertThat(regex("[^x]+", "ab\ncd")).containsExactly("ab", "cd");
            assertThat(regex("^.|.$", "ab\ncd")).containsExactly("a", "b", "c", "d");
        }

        @Test
        void emptyMatchesCountButNotAfterAnother() {
            assertThat(regex("^$", "a\n\nb\n")).containsExactly("");
            assertThat(regex("x*", "axb")).containsExactly("", "x", "");
        }

        @Test
        void mindsCaseWhenThereIsALiteralCapital() {
            assertThat(regex("\\Stide", "xtide XTIDE")).hasSize(2);
            assertThat(regex("[T]ide", "tide Tide")).containsExactly("Tide");
        }

        @Test
        void firstMatchesOfLinesSkipTheRest() {
            assertThat(matches(new TextQuery("a", Reading.REGEX, CaseMode.AUTO, false), "aa\nba\n", true))
                    .hasSize(2);
        }
    }

    @Nested
    class WholeWords {
        @Test
        void areNotPartOfLongerOnesInAnyScript() {
            assertThat(words("tide", Reading.PLAIN, "tide tides _tide tide-gauge étide"))
                    .hasSize(2);
            assertThat(words("прилив", Reading.PLAIN, "прилив приливы")).hasSize(1);
        }

        @Test
        void mayBeginOrEndWithWhatIsNoWordPart() {
            assertThat(words("->next", Reading.PLAIN, "a->next;")).hasSize(1);
            assertThat(words("->\\w+", Reading.REGEX, "a->next;")).containsExactly("->next");
        }

        @Test
        void ofSeveralAlternativesTheWholeOneIsFound() {
            assertThat(words("tide|tides", Reading.REGEX, "tides")).containsExactly("tides");
            assertThat(words("ti|tide", Reading.REGEX, "tide ti")).containsExactly("tide", "ti");
        }
    }

    @Test
    void aTextThatNobodyCanMeanIsRefused() {
        assertThatThrownBy(() -> plain("", "x")).isInstanceOf(InvalidQueryException.class);
        assertThatThrownBy(() -> plain("\uD83D", "x"))
                .isInstanceOf(InvalidQueryException.class)
                .hasMessageContaining("surrogate");
        assertThatThrownBy(() -> plain("x".repeat(10_001), "x")).isInstanceOf(InvalidQueryException.class);
    }
}
