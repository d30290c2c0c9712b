package dev.oddbeacon.core.query;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GlobTest {
    @ParameterizedTest
    @CsvSource({"src/main, src/main/A.java, true", "src/main, src/mainframe/A.java, false", "src/main, lib/src/main/A.java, false", "main, src/main/A.java, true",
        "main, src/mainframe, false", "*.java, src/main/A.java, true", "/src, src/a, true", "/src, lib/src/a, false", "src/**/test, src/a/b/test/c, true",
        "src/**/test, src/test, true", "src/*/x, src/a/b/x, false", "a[bc]d, abd, true", "a[!b]d, acd, true", "a[!b]d, abd, false", "a.b, axb, false",
        "src/, src/a, true", "/a[*]b, a*b, true", "/a[*]b, axb, false", "/a[[]b, a[b, true", "ü?, ü1, true"})
    void matchesPaths(String glob, String path, boolean matches) {
        assertThat(Glob.ofPath(glob).matches(path)).isEqualTo(matches);
    }

    @ParameterizedTest
    @CsvSource({"fare-gate, fare-gate, true", "fare, fare-gate, false", "*-gate, fare-gate, true", "release/*, release/1.2, true"})
    void matchesNamesAsAWhole(String glob, String name, boolean matches) {
        assertThat(Glob.ofName(glob).matches(name)).isEqualTo(matches);
    }
}
