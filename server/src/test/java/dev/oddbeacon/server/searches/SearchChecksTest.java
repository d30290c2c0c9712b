package dev.oddbeacon.server.searches;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** What a saved search finds is held against what it found at an earlier check, on an earlier day, and in a file. */
class SearchChecksTest {
    private static final String SEARCHES = "/api/v1/saved-searches/";

    private static TestTeam team;
    private static Requests keeper;
    private static Requests bo;
    private static Requests cleo;
    private static TestRepository tide;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        team = TestTeam.start(folder, "data");
        keeper = team.person("keeper", "maintainer", "bridge");
        bo = team.person("bo", "reader", "bridge");
        cleo = team.person("cleo", "reader");
        tide = TestRepository.create(folder.resolve("tide"))
                .write("gauge.c", "int depth_feet = 3;\nint tide = 1;\nshow(depth_feet);\n")
                .write("old.c", "print(depth_feet, north);\n")
                .commit("2026-01-10T08:00:00Z", "Gauge");
        tide.write("gauge.c", "// a gauge\n\nint tide = 1;\nint depth_feet = 3;\nshow(depth_feet);\n")
                .write("new.c", "print(depth_feet, north);\n")
                .write("sign.c", "paint(depth_feet, wall);\n");
        tide.git("rm", "-q", "old.c");
        tide.commit("2026-03-10T08:00:00Z", "A sign, and files have moved");
        team.add("tide", tide.path(), "everybody");
        team.add(
                "hidden-cove",
                TestRepository.create(folder.resolve("cove"))
                        .write("cove.c", "int depth_feet;\n")
                        .commit("2026-02-10T08:00:00Z", "Cove")
                        .path(),
                "team:bridge");
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    @BeforeEach
    void searches() {
        for (JsonNode search : keeper.get("/api/v1/saved-searches").json()) {
            keeper.delete(SEARCHES + search.path("name").asString());
        }
        assertThat(save("feet", "lines", Map.of("q", List.of("depth_feet"))).status())
                .isEqualTo(200);
    }

    private static Answer save(String name, String subject, Map<String, List<String>> parameters) {
        return keeper.put(SEARCHES + name, new SavedSearch.Change("everybody", "", subject, parameters, null));
    }

    private static List<String> told(JsonNode results) {
        List<String> told = new ArrayList<>();
        results.forEach(result -> told.add(result.path("repository").asString()
                + (result.path("path").isNull() ? "" : " " + result.path("path").asString())
                + (result.path("line").isNull() ? "" : " " + result.path("line").asInt())));
        return told;
    }

    private static List<String> came(Requests who, String search, String with) {
        Answer answer = who.get(SEARCHES + search + "/comparison", "with", with);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        assertThat(answer.json().path("complete").asBoolean()).isTrue();
        return told(answer.json().path("came"));
    }

    @Test
    void sinceADayOnlyWhatIsNewHasCome() {
        assertThat(came(bo, "feet", "2026-02-01")).containsExactly("hidden-cove cove.c 1", "tide sign.c 1");
        assertThat(came(bo, "feet", "2026-03-01")).containsExactly("tide sign.c 1");
        assertThat(came(cleo, "feet", "2026-02-01")).containsExactly("tide sign.c 1");
        assertThat(came(bo, "feet", "2026-04")).isEmpty();
        assertThat(came(bo, "feet", "2025")).hasSize(5);
        assertThat(came(bo, "feet", "")).hasSize(5);
    }

    @Test
    void sinceADayForTheOtherSubjects() {
        save("files", "files", Map.of("q", List.of(".c"), "reading", List.of("plain")));
        save("symbols", "symbols", Map.of("q", List.of("depth_feet"), "role", List.of("any")));
        save("commits", "commits", Map.of());
        save("both", "lines", Map.of("q", List.of("depth_feet and wall"), "reading", List.of("expression")));
        Waiting.until(() -> came(bo, "commits", "2025").size() == 3);
        assertThat(came(bo, "files", "2026-02-01")).containsExactly("hidden-cove cove.c", "tide new.c", "tide sign.c");
        assertThat(came(bo, "symbols", "2026-03-01")).containsExactly("tide sign.c 1");
        assertThat(came(bo, "both", "2026-03-01")).containsExactly("tide sign.c 1");
        assertThat(came(bo, "commits", "2026-02-01")).containsExactlyInAnyOrder("hidden-cove", "tide");
    }

    @Test
    void sinceACheckWhatCameAndWhatWent() throws IOException {
        assertThat(keeper.put(SEARCHES + "feet/checks/release-12", "").status()).isEqualTo(200);
        assertThat(keeper.put(SEARCHES + "feet/checks/release-12", "").status()).isEqualTo(409);
        assertThat(came(bo, "feet", "release-12")).isEmpty();
        tide.write("sign.c", "int metres;\n\npaint(metres, wall);\n")
                .write("buoy.c", "\n\nbuoy(depth_feet);\n")
                .commit("2026-05-10T08:00:00Z", "Metres on signs, feet on buoys");
        keeper.post("/api/v1/repositories/tide/refresh", "application/json", "");
        team.awaitReady("tide");
        Answer changed = bo.get(SEARCHES + "feet/comparison", "with", "release-12");
        assertThat(told(changed.json().path("came"))).containsExactly("tide buoy.c 3");
        assertThat(told(changed.json().path("went"))).containsExactly("tide sign.c 1");
        assertThat(changed.json().path("found").asInt()).isEqualTo(5);
        assertThat(came(bo, "feet", "2026-05-01")).containsExactly("tide buoy.c 3");
        String kept = bo.get(SEARCHES + "feet/checks/release-12").body();
        assertThat(kept.lines()).hasSize(5).anyMatch(line -> line.contains("\"hidden-cove\""));
        Answer fromFile = bo.post(SEARCHES + "feet/comparison", "application/jsonl", kept);
        assertThat(told(fromFile.json().path("came"))).containsExactly("tide buoy.c 3");
        assertThat(keeper.delete(SEARCHES + "feet/checks/release-12").status()).isEqualTo(204);
        assertThat(bo.get(SEARCHES + "feet/comparison", "with", "release-12").status())
                .isEqualTo(404);
    }

    @Test
    void aCheckIsMadeWithEverythingInSightAndShowsEachWhatTheyMaySee() {
        Requests outside = team.person("lena", "maintainer");
        assertThat(outside.put(SEARCHES + "feet/checks/all", "")
                        .json()
                        .path("results")
                        .asInt())
                .isEqualTo(4);
        assertThat(came(bo, "feet", "all")).isEmpty();
        assertThat(bo.get(SEARCHES + "feet/checks/all").body()).contains("hidden-cove");
        for (Requests who : List.of(outside, cleo)) {
            assertThat(who.get(SEARCHES + "feet/checks/all").body()).doesNotContain("hidden");
            assertThat(who.get(SEARCHES + "feet/results").body()).doesNotContain("hidden");
            assertThat(who.get(SEARCHES + "feet/checks")
                            .json()
                            .path(0)
                            .path("results")
                            .asInt())
                    .isEqualTo(4);
            assertThat(who.get(SEARCHES + "feet/comparison", "with", "all").body())
                    .doesNotContain("hidden");
        }
    }

    @Test
    void whatCannotBeIsRefused() {
        assertThat(bo.put(SEARCHES + "feet/checks/mine", "").status()).isEqualTo(403);
        assertThat(keeper.put(SEARCHES + "feet/checks/2026-01", "").detail()).contains("is a day");
        assertThat(keeper.put(SEARCHES + "feet/checks/a:b", "").status()).isEqualTo(400);
        assertThat(bo.get(SEARCHES + "feet/comparison", "with", "never").detail())
                .contains("no check never")
                .contains("no day");
        assertThat(bo.get(SEARCHES + "none/checks").status()).isEqualTo(404);
        assertThat(bo.post(SEARCHES + "feet/comparison", "application/jsonl", "{}\nx")
                        .detail())
                .contains("Line 1 is no result");
        assertThat(keeper.get(SEARCHES + "feet/checks").json()).isEmpty();
    }

    @Test
    void checksGoWithTheirSearch() {
        keeper.put(SEARCHES + "feet/checks/one", "");
        keeper.delete(SEARCHES + "feet");
        save("feet", "lines", Map.of("q", List.of("tide")));
        assertThat(keeper.get(SEARCHES + "feet/checks").json()).isEmpty();
    }
}
