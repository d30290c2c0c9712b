package dev.oddbeacon.core.text.regex;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.oddbeacon.core.text.ScanStoppedException;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The automaton and the span finder, held against RE2/J. */
class LineRegexTest {
    private static final String[] PARTS = {
        "a",
        "b",
        "ab",
        "K",
        "s",
        "\u017F",
        "\u03C3",
        "\u20AC",
        "\uD83D\uDEA2",
        " ",
        "_",
        "1",
        ".",
        "\\d",
        "\\w",
        "\\W",
        "\\s",
        "\\S",
        "[ab]",
        "[^a]",
        "[^\u20AC]",
        "[a-z]",
        "[\u0370-\u03FF]",
        "\\pL",
        "\\PL",
        "\\p{Greek}",
        "[[:alpha:]]",
        "[\\d_]",
        "^",
        "$",
        "\\b",
        "\\B",
        "\\A",
        "\\z",
        "\\x{20AC}",
        "(?i)",
        "(?-i)",
        "\\Qa.b\\E"
    };
    private static final String[] REPEATS = {"*", "+", "?", "*?", "+?", "??", "{2}", "{0,2}", "{1,3}?", "{2,}"};
    private static final String[] TEXT = {
        "a",
        "b",
        "A",
        "B",
        "k",
        "K",
        "\u212A",
        "s",
        "S",
        "\u017F",
        "\u03C3",
        "\u03C2",
        "\u03A3",
        "\u20AC",
        "\uD83D\uDEA2",
        "\uD83D\uDEA3",
        "\u00E9",
        " ",
        "_",
        "1",
        ".",
        "\t",
        "\r",
        "\n",
        "\n",
        "\u0080",
        "\u07FF",
        "\u0800",
        "\uFFFD",
        "\uD800\uDC00",
        "\uDBFF\uDFFF"
    };

    private static String regex(Random random, int depth) {
        StringBuilder regex = new StringBuilder();
        for (int i = random.nextInt(4); i >= 0; i--) {
            String part = depth > 0 && random.nextInt(3) == 0
                    ? "(" + (random.nextBoolean() ? "?:" : "") + regex(random, depth - 1) + ")"
                    : PARTS[random.nextInt(PARTS.length)];
            regex.append(part).append(random.nextInt(3) == 0 ? REPEATS[random.nextInt(REPEATS.length)] : "");
            if (random.nextInt(8) == 0) {
                regex.append('|');
            }
        }
        return regex.toString();
    }

    private static String text(Random random) {
        StringBuilder text = new StringBuilder();
        for (int i = random.nextInt(30); i > 0; i--) {
            text.append(TEXT[random.nextInt(TEXT.length)]);
        }
        return text.toString();
    }

    private static List<String> expected(Pattern pattern, String text) {
        List<String> found = new ArrayList<>();
        String[] lines = text.split("\n", -1);
        for (int i = 0; i < lines.length; i++) {
            boolean isLine = i < lines.length - 1 || !lines[i].isEmpty();
            Matcher matcher = pattern.matcher(lines[i]);
            int lastEnd = -1;
            int from = 0; // by itself, the reference would look for empty matches between the two halves of a character
            while (isLine && from <= lines[i].length() && matcher.find(from)) {
                boolean isEmpty = matcher.start() == matcher.end();
                if (!isEmpty || matcher.start() != lastEnd) {
                    found.add(i + ":" + matcher.start() + "-" + matcher.end());
                }
                lastEnd = matcher.end();
                from = !isEmpty
                        ? lastEnd
                        : lastEnd < lines[i].length() ? lines[i].offsetByCodePoints(lastEnd, 1) : lastEnd + 1;
            }
        }
        return found;
    }

    private static List<String> found(LineRegex regex, String text) {
        MemorySegment bytes = MemorySegment.ofArray(text.getBytes(StandardCharsets.UTF_8));
        LineRegex.Finder finder = regex.finder(() -> false);
        List<String> found = new ArrayList<>();
        for (long from = 0; finder.nextLine(bytes, from, bytes.byteSize()); from = finder.lineEnd() + 1) {
            do {
                String before = Utf8.string(bytes, 0, finder.start());
                int line = (int) before.chars().filter(c -> c == '\n').count();
                int start = before.length() - before.lastIndexOf('\n') - 1;
                found.add(line + ":" + start + "-"
                        + (start
                                + Utf8.string(bytes, finder.start(), finder.end())
                                        .length()));
            } while (finder.nextMatch());
        }
        return found;
    }

    @Test
    void findsWhatTheReferenceFinds() {
        long seed = Long.getLong("oddbeacon.seed", 31L);
        System.out.println("regex engine property test: seed " + seed);
        Random random = new Random(seed);
        int cases = 0;
        while (cases < 12_000) {
            String source = regex(random, 2);
            boolean ignoreCase = random.nextInt(3) == 0;
            Pattern pattern;
            try {
                pattern = Pattern.compile(source, ignoreCase ? Pattern.CASE_INSENSITIVE : 0);
            } catch (PatternSyntaxException e) {
                continue;
            }
            LineRegex regex = LineRegex.of(RegexParser.parse(source, ignoreCase).regex());
            for (int i = 0; i < 16; i++, cases++) {
                String text = i < 12
                        ? text(random)
                        : IntStream.range(0, 10).mapToObj(_ -> text(random)).collect(Collectors.joining("\n"));
                assertThat(found(regex, text))
                        .as("seed %d: %s in %s, ignoring case: %s", seed, source, text.replace("\n", "\\n"), ignoreCase)
                        .isEqualTo(expected(pattern, text));
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"[ab]*a[ab]{12}c", "(?:a|b|ab){1,30}k", ".{40}a.{40}", "(a*)*b", "((a|b)*a){3}(a|b){14}k"})
    void staysWithinItsMemoryWhenThereAreVeryManyStates(String source) {
        Random random = new Random(7);
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 60_000; i++) {
            text.append("abk\n".charAt(random.nextInt(200) == 0 ? 3 : random.nextInt(20) == 0 ? 2 : random.nextInt(2)));
        }
        LineRegex regex = LineRegex.of(RegexParser.parse(source, false).regex());
        List<String> expected = expected(Pattern.compile(source), text.toString());
        assertThat(counted(regex, text.toString()))
                .isEqualTo(expected.stream()
                        .map(match -> match.split(":")[0])
                        .distinct()
                        .count());
        assertThat(found(regex, text.toString())).isEqualTo(expected);
    }

    private static long counted(LineRegex regex, String text) {
        MemorySegment bytes = MemorySegment.ofArray(text.getBytes(StandardCharsets.UTF_8));
        return regex.finder(() -> false).countLines(bytes, 0, bytes.byteSize());
    }

    private static long oneByOne(LineRegex regex, String text) {
        MemorySegment bytes = MemorySegment.ofArray(text.getBytes(StandardCharsets.UTF_8));
        LineRegex.Finder finder = regex.finder(() -> false);
        long count = 0;
        for (long from = 0; finder.nextLine(bytes, from, bytes.byteSize()); from = finder.lineEnd() + 1) {
            count++;
        }
        return count;
    }

    @Test
    void countsTheLinesItFinds() {
        Random random = new Random(Long.getLong("oddbeacon.seed", 32L));
        for (int round = 0; round < 300; round++) {
            String source = regex(random, 1);
            try {
                Pattern.compile(source);
            } catch (PatternSyntaxException e) {
                continue;
            }
            StringBuilder text = new StringBuilder();
            int length = random.nextInt(40_000);
            while (text.length() < length) {
                text.append(TEXT[random.nextInt(random.nextInt(50) == 0 ? 1 : TEXT.length)]);
            }
            LineRegex regex = LineRegex.of(RegexParser.parse(source, false).regex());
            assertThat(counted(regex, text.toString())).as(source).isEqualTo(oneByOne(regex, text.toString()));
        }
    }

    @Test
    void stopsWhenToldTo() {
        LineRegex regex =
                LineRegex.of(RegexParser.parse("(?:[ab]*a){300}x", false).regex());
        MemorySegment text = MemorySegment.ofArray(("ab".repeat(50_000) + "ax").getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> regex.finder(() -> true).nextLine(text, 0, text.byteSize()))
                .isInstanceOf(ScanStoppedException.class);
    }

    @Test
    void refusesWhatBecomesTooLarge() {
        assertThatThrownBy(
                        () -> LineRegex.of(RegexParser.parse("\\pL{500}", false).regex()))
                .isInstanceOf(RegexSyntaxException.class)
                .hasMessageContaining("60000 steps");
    }
}
