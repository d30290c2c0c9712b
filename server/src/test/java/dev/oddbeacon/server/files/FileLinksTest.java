package dev.oddbeacon.server.files;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is shown beside a link, to those who may follow it. */
class FileLinksTest {
    @TempDir
    private static Path folder;

    private static TestTeam team;
    private static Requests mate;
    private static Requests other;
    private static String commit;

    @BeforeAll
    static void start() throws IOException {
        team = TestTeam.start(folder, "data", "--oddbeacon.guests=true");
        mate = team.person("mate", "reader", "deck");
        other = team.person("other", "reader");
        TestRepository gauges = TestRepository.create(folder.resolve("gauges"))
                .write("src/gauge.py", "def depth():\n    return \"<b>\" & 'low'\n\n# end\u202e\n")
                .commit("Measure \"depth\"\n\nIn metres.");
        commit = gauges.git("rev-parse", "HEAD").strip();
        team.add("gauges", gauges.path(), "team:deck");
        TestRepository open = TestRepository.create(folder.resolve("open"))
                .write("a.txt", "one\ntwo\nthree\nfour\nfive\nsix\n")
                .commit("All");
        team.add("open", open.path(), "anybody");
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    private static String page(Requests who, String path, String... parameters) {
        TestService.Answer answer = who.get(path, parameters);
        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.body()).contains("<div id=\"app\"></div>");
        return answer.body();
    }

    private static Requests guest() {
        return team.service().with(Map.of());
    }

    @Test
    void titleAndExcerptAreOfTheLinesThatItNames() {
        assertThat(page(mate, "/file", "in", "gauges", "path", "src/gauge.py", "line", "2"))
                .contains("<title>src/gauge.py:2 in gauges at main \u00b7 Odd Beacon</title>")
                .contains("<meta property=\"og:title\" content=\"src/gauge.py:2 in gauges at main\" />")
                .contains("content=\"    return &quot;&lt;b&gt;&quot; &amp; &#39;low&#39;\" />");
        assertThat(page(guest(), "/file", "in", "open", "path", "a.txt", "line", "2-4"))
                .contains("<meta property=\"og:description\" content=\"two\nthree\nfour\" />");
        assertThat(page(guest(), "/file", "in", "open", "path", "a.txt"))
                .contains("<meta property=\"og:description\" content=\"one\ntwo\nthree\nfour\nfive\" />");
        assertThat(page(mate, "/file", "in", "gauges", "path", "src/gauge.py", "rev", commit))
                .contains("content=\"src/gauge.py in gauges at " + commit.substring(0, 8) + "\"")
                .doesNotContain("\u202e");
    }

    @Test
    void aCommitIsShownWithItsMessage() {
        assertThat(page(mate, "/commit", "in", "gauges", "id", commit))
                .contains("<meta property=\"og:title\" content=\"Measure &quot;depth&quot; in gauges\" />")
                .contains("In metres.");
    }

    @Test
    void whoMayNotSeeItGetsThePageOfNothing() {
        String nothing = page(other, "/file", "in", "no-such", "path", "no-such");
        assertThat(nothing).contains("<title>Odd Beacon</title>").doesNotContain("og:");
        for (Requests who : new Requests[] {other, guest()}) {
            assertThat(page(who, "/file", "in", "gauges", "path", "src/gauge.py", "line", "2"))
                    .isEqualTo(nothing);
            assertThat(page(who, "/commit", "in", "gauges", "id", commit)).isEqualTo(nothing);
        }
        assertThat(page(mate, "/file", "in", "gauges", "path", "src/gauge.py", "line", "x"))
                .isEqualTo(nothing);
        assertThat(page(mate, "/file")).isEqualTo(nothing);
    }

    @Test
    void whereNobodyIsGuestNothingIsTold(@TempDir Path other) throws IOException {
        try (TestTeam closed = TestTeam.start(other, "data")) {
            closed.add(
                    "open",
                    TestRepository.create(other.resolve("open"))
                            .write("a.txt", "one\n")
                            .commit("All")
                            .path(),
                    "everybody");
            assertThat(page(closed.service().with(Map.of()), "/file", "in", "open", "path", "a.txt"))
                    .doesNotContain("og:");
            assertThat(page(closed.administrator(), "/file", "in", "open", "path", "a.txt"))
                    .contains("og:");
        }
    }
}
