package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** The past on the demo, through the interface and the client, held against Git. */
class HistoryTest {
    private static final String PREDICT = "tidewatch/predict.py";
    private static final String OLD_ADDRESS = "tides.quillhaven.example";

    @TempDir
    static Path folder;

    private static GitFolder tidewatch;

    @BeforeAll
    static void cloneAndWait() throws Exception {
        awaitPast(Demo.address());
        tidewatch = GitFolder.create(folder.resolve("tidewatch"));
        tidewatch.git(
                "pull", "-q", get("/repositories/tidewatch").path("location").asString(), "HEAD");
    }

    /** Lines can be searched before the past is read. */
    static void awaitPast(String address) throws InterruptedException {
        while (!Http.get(address, "/api/v1/search/commits", "limit", "1")
                .json()
                .path("index")
                .path("complete")
                .asBoolean()) {
            Thread.sleep(50);
        }
    }

    private static JsonNode get(String path, String... parameters) {
        return Http.get(Demo.address(), "/api/v1" + path, parameters).json();
    }

    private static List<String> summaries(String... parameters) {
        List<String> found = new ArrayList<>();
        get("/search/commits", parameters)
                .path("commits")
                .forEach(commit ->
                        found.add(commit.path("commit").path("repository").asString() + ": "
                                + commit.path("commit").path("summary").asString()));
        return found;
    }

    @Test
    void commitsAreFoundByMessagePersonDateAndPath() {
        assertThat(summaries("q", "address tidewatch"))
                .containsExactly(
                        "shore-ops: Runbooks with the new address of tidewatch",
                        "deck-signs: Move to the new address of tidewatch",
                        "berth-planner: Move to the new address of tidewatch");
        assertThat(summaries("by", "tomás", "after", "2021", "before", "2022"))
                .containsExactly(
                        "berth-planner: Ten minutes between two ferries, after the two near misses at Thornsea");
        assertThat(summaries("touches", "*.sql"))
                .isNotEmpty()
                .allMatch(summary -> summary.startsWith("shore-ops"))
                .hasSize(2);
        assertThat(summaries("q", "says(/^Revert/) or (touches(.mailmap) not by(gwen))", "reading", "expression"))
                .containsExactly(
                        "tidewatch: Who people are, and what only formats",
                        "berth-planner: Revert \"Log every candidate, to find out why the planner is slow\"");
        assertThat(summaries("q", "holds(IMPOSSIBLE_JUMP)", "reading", "expression"))
                .contains("tidewatch: Detect surges, after the storm")
                .isNotEmpty()
                .allMatch(summary -> summary.startsWith("tidewatch"));
        assertThat(summaries("q", "nothing was ever called so")).isEmpty();
    }

    @Test
    void linesThatCameAndWentAreFoundAsGitFindsThem() throws IOException {
        for (String text : List.of("IMPOSSIBLE_JUMP", "station.constituents", "v2", "import math")) {
            List<String> found = new ArrayList<>();
            get(
                            "/search/commits",
                            "q",
                            "adds(\"" + text + "\") or removes(\"" + text + "\")",
                            "reading",
                            "expression",
                            "case",
                            "match",
                            "repo",
                            "tidewatch")
                    .path("commits")
                    .forEach(
                            commit -> found.add(commit.path("commit").path("id").asString()));
            assertThat(found)
                    .as(text)
                    .isEqualTo(tidewatch
                            .git("log", "--format=%H", "-G" + text.replace(".", "\\."))
                            .lines()
                            .toList());
        }
        JsonNode line = get("/search/commits", "removes", OLD_ADDRESS, "repo", "deck-signs")
                .path("commits")
                .get(0)
                .path("lines")
                .get(0);
        assertThat(line.path("kind").asString()
                        + line.path("number").asInt()
                        + line.path("path").asString())
                .isEqualTo("-7lib/deck_signs/warning.rb");
    }

    @Test
    void oneSeesWhenLinesCameInAndLeft() {
        JsonNode course = get("/search/lines/over-time", "q", OLD_ADDRESS);
        assertThat(course.path("commits").asInt()).isEqualTo(6);
        assertThat(course.path("first").path("commit").path("repository").asString())
                .isEqualTo("shore-ops");
        assertThat(course.path("last").path("removed").asInt()).isEqualTo(1);
        assertThat(course.path("courses"))
                .hasSize(3)
                .allMatch(one ->
                        one.path("now").asInt() == 0 && one.path("difference").asInt() == 0);
        JsonNode now = get("/search/lines/over-time", "q", "tidewatch", "repo", "berth-planner")
                .path("courses")
                .get(0);
        assertThat(now.path("now").asLong())
                .isEqualTo(get(
                                "/search/lines",
                                "q",
                                "tidewatch",
                                "repo",
                                "berth-planner",
                                "only",
                                "counts",
                                "counts",
                                "exact")
                        .path("counts")
                        .path("hits")
                        .asLong());
        assertThat(now.path("points")
                                .get(now.path("points").size() - 1)
                                .path("lines")
                                .asLong()
                        + now.path("difference").asLong())
                .isEqualTo(now.path("now").asLong());
        assertThat(Http.get(Demo.address(), "/api/v1/search/lines/over-time", "q", "a b", "reading", "expression")
                        .status())
                .isEqualTo(400);
    }

    @Test
    void peopleAreNamedAsTheMailmapSaysAndTheirCommitsAreOne() {
        JsonNode answer = get("/search/commits", "by", "jonas", "repo", "tidewatch");
        assertThat(answer.path("facets").path("person")).hasSize(1);
        assertThat(answer.path("counts").path("commits").asInt()).isEqualTo(4);
        assertThat(get("/search/commits", "by", "oldharbour")
                        .path("counts")
                        .path("commits")
                        .asInt())
                .isEqualTo(1);
        int sum = 0;
        for (JsonNode bar : answer.path("facets").path("timeline").path("bars")) {
            sum += bar.path("commits").asInt();
        }
        assertThat(sum).isEqualTo(4);
    }

    @Test
    void theLogOfAFileFollowsItsName() throws IOException {
        JsonNode log = get("/repositories/hull-telemetry/log", "path", "src/uplink.c");
        assertThat(log.path("entries")).hasSize(2);
        assertThat(log.path("entries").get(0).path("from").asString()).isEqualTo("src/link.c");
        List<String> found = new ArrayList<>();
        String cursor = "0";
        while (cursor != null) {
            JsonNode page = get("/repositories/tidewatch/log", "path", "tests", "limit", "2", "cursor", cursor);
            page.path("entries")
                    .forEach(entry -> found.add(entry.path("commit").path("id").asString()));
            cursor = page.path("next").isNull() ? null : page.path("next").asString();
        }
        assertThat(found)
                .isEqualTo(tidewatch
                        .git("log", "--format=%H", "--", "tests")
                        .lines()
                        .toList());
    }

    @Test
    void originsOfLinesAreThoseOfGit() throws IOException {
        List<String> expected = tidewatch
                .git("blame", "-s", "-l", "--abbrev=40", PREDICT)
                .lines()
                .map(line -> line.replace("^", "").substring(0, 39))
                .toList();
        assertThat(origins("ignoreListed", "false"))
                .usingElementComparator((a, b) -> a.substring(0, 39).compareTo(b))
                .isEqualTo(expected);
        List<String> through = tidewatch
                .git("blame", "-s", "-l", "--abbrev=40", "--ignore-revs-file", ".git-blame-ignore-revs", PREDICT)
                .lines()
                .map(line -> line.replace("^", "").substring(0, 39))
                .toList();
        assertThat(origins())
                .usingElementComparator((a, b) -> a.substring(0, 39).compareTo(b))
                .isEqualTo(through);
        JsonNode moved = get("/repositories/tidewatch/blame", "path", "tidewatch/serve.py");
        JsonNode changed = null;
        for (JsonNode origin : moved.path("origins")) {
            changed = origin.path("summary").asString().equals("Version 2 of the paths") ? origin : changed;
        }
        assertThat(changed).isNotNull();
        assertThat(changed.path("previous").path("commit").asString())
                .isEqualTo(tidewatch.git("rev-parse", changed.path("commit").asString() + "^"));
    }

    private static List<String> origins(String... more) {
        List<String> parameters = new ArrayList<>(List.of("path", PREDICT));
        parameters.addAll(List.of(more));
        List<String> lines = new ArrayList<>();
        get("/repositories/tidewatch/blame", parameters.toArray(String[]::new))
                .path("origins")
                .forEach(origin -> {
                    for (int line = origin.path("fromLine").asInt();
                            line <= origin.path("toLine").asInt();
                            line++) {
                        lines.add(origin.path("commit").asString());
                    }
                });
        return lines;
    }

    @Test
    void aCommitKnowsWhereItBelongs() {
        JsonNode found = get("/search/commits", "q", "Ten minutes between two ferries");
        String id = found.path("commits").get(0).path("commit").path("id").asString();
        JsonNode page = get("/repositories/berth-planner/commits/" + id.substring(0, 8));
        assertThat(page.path("commit").path("id").asString()).isEqualTo(id);
        assertThat(page.path("branches").toString()).contains("main", "winter-timetable");
        assertThat(page.path("tags").toString()).contains("v3.2").doesNotContain("v1.0");
        assertThat(page.path("children")).isNotEmpty();
        Http.Answer none = Http.get(Demo.address(), "/api/v1/repositories/berth-planner/commits/0000000");
        assertThat(none.status()).isEqualTo(404);
        assertThat(none.text("detail")).contains("There is no revision 0000000");
    }

    @Test
    void branchesAndTagsAreFoundByAFewLetters() {
        JsonNode found = get("/repositories/berth-planner/revisions", "q", "wint");
        assertThat(found.path("revisions").get(0).path("name").asString()).isEqualTo("winter-timetable");
        assertThat(found.path("revisions").get(0).path("summary").asString())
                .isEqualTo("Try a shorter buffer for the winter timetable");
        assertThat(get("/repositories/berth-planner/revisions").path("total").asInt())
                .isGreaterThanOrEqualTo(5);
    }

    @Test
    void twoRevisionsAreComparedAndThePatchApplies() throws IOException {
        JsonNode diff = get("/repositories/tidewatch/diff", "from", "v1.0", "to", "v2.0");
        List<String> paths = new ArrayList<>();
        diff.path("files").forEach(file -> paths.add(file.path("path").asString()));
        tidewatch.git(
                "fetch",
                "-q",
                "--tags",
                get("/repositories/tidewatch").path("location").asString());
        assertThat(paths)
                .containsExactlyInAnyOrderElementsOf(tidewatch
                        .git("diff", "--name-only", "v1.0", "v2.0")
                        .lines()
                        .toList());
        Client.Result patch = Client.run(Demo.address(), "diff", "tidewatch", "v1.0", "v2.0");
        GitFolder other = GitFolder.create(folder.resolve("applied"));
        other.git("pull", "-q", tidewatch.path().toString(), "v1.0");
        other.write("../change.diff", patch.out());
        other.git("apply", "--index", "../change.diff");
        assertThat(other.git("write-tree")).isEqualTo(tidewatch.git("rev-parse", "v2.0^{tree}"));
    }

    @Test
    void filesAreNarrowedByTheirLastChange() throws IOException {
        List<String> found = new ArrayList<>();
        get("/search/files", "repo", "tidewatch", "changedAfter", "2022-05-01", "limit", "100", "order", "path")
                .path("files")
                .forEach(file -> found.add(file.path("path").asString()));
        List<String> expected = new ArrayList<>();
        for (String path : tidewatch.git("ls-files").lines().toList()) {
            if (tidewatch.git("log", "-1", "--format=%cs", "--", path).compareTo("2022-05-01") >= 0) {
                expected.add(path);
            }
        }
        assertThat(found).isEqualTo(expected).contains(PREDICT).doesNotContain("tidewatch/gauge.py");
        assertThat(get("/search/lines", "q", "changed(before: 2019) def", "reading", "expression", "only", "counts")
                        .path("counts")
                        .path("files")
                        .asInt())
                .isPositive();
        JsonNode newest = get("/search/files", "repo", "tidewatch", "order", "recent", "limit", "1")
                .path("files")
                .get(0);
        assertThat(newest.path("changed").asString()).startsWith("2025-09-08");
        assertThat(Http.get(Demo.address(), "/api/v1/search/files", "changedAfter", "soon")
                        .text("detail"))
                .contains("2026-01-31");
    }

    @Test
    void theClientTellsThePast() {
        assertThat(Client.run(Demo.address(), "commits", "--by", "gwen", "--limit", "2", "signs")
                        .out())
                .contains("deck-signs 20", "Gwen Tally");
        assertThat(Client.run(Demo.address(), "commits", "--adds", "IMPOSSIBLE_JUMP = ")
                        .out())
                .contains("tidewatch/surge.py:", "+IMPOSSIBLE_JUMP = 1.2");
        assertThat(Client.run(Demo.address(), "commits", "nobody wrote this").status())
                .isEqualTo(1);
        assertThat(Client.run(Demo.address(), "commits", "--expression", "adds(")
                        .status())
                .isEqualTo(2);
        assertThat(Client.run(Demo.address(), "log", "hull-telemetry:src/uplink.c")
                        .lines())
                .hasSize(2);
        assertThat(Client.run(Demo.address(), "log", "tidewatch@v1.0", "--format", "jsonl")
                        .lines())
                .hasSize(3)
                .allMatch(line -> line.startsWith("{\"repository\":\"tidewatch\""));
        assertThat(Client.run(Demo.address(), "blame", "tidewatch:" + PREDICT)
                        .lines()
                        .getFirst())
                .startsWith("2018-09-10")
                .contains("Mara Quill")
                .endsWith("\"\"\"Harmonic prediction of the tide.\"\"\"");
        assertThat(Client.run(
                                Demo.address(),
                                "diff",
                                "berth-planner:src/main/java/quillhaven/berth/plan/MooringBuffer.java",
                                "v2.0",
                                "v3.2")
                        .out())
                .contains("-    public static final Duration DEFAULT = Duration.ofMinutes(5);");
        assertThat(Client.run(
                                Demo.address(),
                                "show",
                                "berth-planner:src/main/java/quillhaven/berth/plan/MooringBuffer.java@v2.0")
                        .out())
                .contains("ofMinutes(5)");
        assertThat(Client.run(Demo.address(), "lines", "--over-time", OLD_ADDRESS)
                        .out())
                .contains("shore-ops -1 2023-05-16");
        assertThat(Client.run(Demo.address(), "files", "--repo", "tidewatch", "--changed", "2024")
                        .lines())
                .hasSize(2);
    }
}
