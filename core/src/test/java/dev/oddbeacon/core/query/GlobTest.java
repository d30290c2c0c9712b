package dev.oddbeacon.core.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GlobTest {
    @ParameterizedTest
    @CsvSource({
        "src/main, src/main/A.java, true",
        "src/main, src/mainframe/A.java, false",
        "src/main, lib/src/main/A.java, false",
        "main, src/main/A.java, true",
        "main, src/mainframe, false",
        "*.java, src/main/A.java, true",
        "/src, src/a, true",
        "/src, lib/src/a, false",
        "src/**/test, src/a/b/test/c, true",
        "src/**/test, src/test, true",
        "src/*/x, src/a/b/x, false",
        "a[bc]d, abd, true",
        "a[!b]d, acd, true",
        "a[!b]d, abd, false",
        "a.b, axb, false",
        "src/, src/a, true",
        "/a[*]b, a*b, true",
        "/a[*]b, axb, false",
        "/a[[]b, a[b, true",
        "ü?, ü1, true"
    })
    void matchesPaths(String glob, String path, boolean matches) {
        assertThat(Glob.ofPath(glob).matches(path)).isEqualTo(matches);
    }

    @ParameterizedTest
    @CsvSource({
        "fare-gate, fare-gate, true",
        "fare, fare-gate, false",
        "*-gate, fare-gate, true",
        "release/*, release/1.2, true"
    })
    void matchesNamesAsAWhole(String glob, String name, boolean matches) {
        assertThat(Glob.ofName(glob).matches(name)).isEqualTo(matches);
    }

    /** Against the same pattern as a regular expression. */
    @Test
    void agreesWithARegularExpression() {
        long seed = Long.getLong("oddbeacon.seed", 51L);
        System.out.println("GlobTest: seed " + seed);
        Random random = new Random(seed);
        String[] parts = {"a", "b", "*", "?", "/", "**/", "**", "[ab]", "[!a]", "ab"};
        int matching = 0;
        for (int i = 0; i < 40_000; i++) {
            String glob = IntStream.rangeClosed(0, random.nextInt(6))
                    .mapToObj(_ -> parts[random.nextInt(parts.length)])
                    .collect(Collectors.joining());
            String path = IntStream.rangeClosed(0, random.nextInt(8))
                    .mapToObj(_ -> "ab/".charAt(random.nextInt(3)))
                    .map(String::valueOf)
                    .collect(Collectors.joining());
            boolean expected = Pattern.matches(regex(glob), path);
            assertThat(Glob.ofName(glob).matches(path))
                    .as("%s and %s", glob, path)
                    .isEqualTo(expected);
            boolean below = Pattern.matches(
                    (glob.replaceFirst("/$", "").contains("/") ? "" : "(.*/)?")
                            + regex(glob.replaceFirst("/$", "").replaceFirst("^/", "")) + "(/.*)?",
                    path);
            if (!glob.replace("/", "").isEmpty()) {
                assertThat(Glob.ofPath(glob).matches(path))
                        .as("path %s and %s", glob, path)
                        .isEqualTo(below);
            }
            matching += expected ? 1 : 0;
        }
        assertThat(matching).isGreaterThan(1_000);
    }

    private static String regex(String glob) {
        return glob.replaceAll("(^|(?<=/))\\*\\*/", "<")
                .replace("**", ">")
                .replace("*", "[^/]*")
                .replace("?", "[^/]")
                .replace("[!a]", "[^/a]")
                .replace("<", "(.*/)?")
                .replace(">", ".*");
    }
}
