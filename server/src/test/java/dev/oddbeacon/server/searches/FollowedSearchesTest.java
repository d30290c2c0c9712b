package dev.oddbeacon.server.searches;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Saved searches in repositories come, change and go with their files; a mistake is told, and changes nothing. */
class FollowedSearchesTest {
    private static final String SEARCHES = "/api/v1/saved-searches";

    @TempDir
    private Path folder;

    private TestTeam team;
    private Requests keeper;
    private Requests bo;
    private Requests cleo;
    private TestRepository cove;

    @BeforeEach
    void start() throws IOException {
        team = TestTeam.start(folder, "data");
        keeper = team.person("keeper", "maintainer", "bridge");
        bo = team.person("bo", "reader", "bridge");
        cleo = team.person("cleo", "reader");
        cove = TestRepository.create(folder.resolve("cove"))
                .write("cove.c", "int depth_feet;\n")
                .write(".oddbeacon/feet.yaml", searches("feet", "depth_feet"))
                .write(".oddbeacon/notes.txt", "no searches\n")
                .write(".oddbeacon/deeper/more.yaml", searches("deeper", "x"))
                .commit("Cove");
        team.add("cove", cove.path(), "team:bridge");
    }

    @AfterEach
    void stop() {
        team.close();
    }

    private static String searches(String name, String text) {
        return "saved-searches:\n  " + name + ":\n    subject: lines\n    text: " + text + "\n";
    }

    private static List<String> had(Requests who) {
        List<String> had = new ArrayList<>();
        for (JsonNode search : who.get(SEARCHES).json()) {
            had.add(search.path("of").asString() + " " + search.path("name").asString() + " "
                    + search.path("parameters").path("q").path(0).asString());
        }
        return had;
    }

    private static List<String> problems(Requests who) {
        List<String> problems = new ArrayList<>();
        for (JsonNode problem : who.get(SEARCHES + "/file/problems").json()) {
            problems.add(problem.path("repository").asString() + " "
                    + problem.path("path").asString() + " "
                    + problem.path("problem").asString());
        }
        return problems;
    }

    private void push() throws IOException {
        cove.commit("Change");
        team.administrator().post("/api/v1/repositories/cove/refresh", "application/json", "");
        team.awaitReady("cove");
    }

    @Test
    void theyComeChangeAndGoWithTheirFilesForWhoeverSeesTheRepository() throws IOException {
        Waiting.until(() -> had(bo).equals(List.of("repository:cove feet depth_feet")));
        assertThat(bo.get(SEARCHES + "/feet").json().path("source").asString()).isEqualTo(".oddbeacon/feet.yaml");
        assertThat(had(cleo)).isEmpty();
        assertThat(cleo.get(SEARCHES + "/feet?of=repository:cove").status()).isEqualTo(404);
        assertThat(bo.get(SEARCHES + "/feet/results").body()).contains("cove.c");
        long version = bo.get(SEARCHES + "/feet").json().path("version").asLong();

        cove.write(
                        ".oddbeacon/feet.yaml",
                        searches("feet", "depth_feet").replace("lines\n", "lines\n    case: match\n"))
                .write(".oddbeacon/tide.yaml", searches("tide", "int"));
        push();
        Waiting.until(() -> had(bo).size() == 2);
        assertThat(bo.get(SEARCHES + "/feet").json().path("version").asLong()).isGreaterThan(version);

        cove.git("rm", "-q", ".oddbeacon/feet.yaml");
        push();
        Waiting.until(() -> had(bo).equals(List.of("repository:cove tide int")));
        team.administrator().delete("/api/v1/repositories/cove");
        team.add(
                "cove",
                TestRepository.create(folder.resolve("other"))
                        .write("a", "b\n")
                        .commit("A")
                        .path(),
                "everybody");
        Waiting.until(() -> had(cleo).isEmpty() && had(bo).isEmpty());
    }

    @Test
    void aMistakeIsToldAndWhatTheFileHeldStays() throws IOException {
        Waiting.until(() -> had(bo).size() == 1);
        cove.write(".oddbeacon/feet.yaml", "saved-searches:\n  feet:\n    subject: lines\n   text: x\n")
                .write(".oddbeacon/more.yaml", searches("more", "int"))
                .write(".oddbeacon/twice.yaml", searches("more", "int"))
                .write(".oddbeacon/unknown.yaml", searches("unknown", "int").replace("lines", "pages"));
        push();
        Waiting.until(() -> problems(bo).size() == 3);
        assertThat(had(bo)).containsExactly("repository:cove feet depth_feet", "repository:cove more int");
        assertThat(problems(bo).getFirst()).startsWith("cove .oddbeacon/feet.yaml The file cannot be read. Line 4: ");
        assertThat(problems(bo).get(1))
                .isEqualTo("cove .oddbeacon/twice.yaml There is a search more in .oddbeacon/more.yaml already.");
        assertThat(problems(bo).get(2)).contains("unknown.yaml").contains("lines, files, symbols, commits or scope");
        assertThat(problems(cleo)).isEmpty();

        cove.write(".oddbeacon/feet.yaml", searches("feet", "feet"));
        cove.git("rm", "-q", "-f", ".oddbeacon/twice.yaml", ".oddbeacon/unknown.yaml");
        push();
        Waiting.until(() -> problems(bo).isEmpty());
        assertThat(had(bo)).containsExactly("repository:cove feet feet", "repository:cove more int");
    }

    @Test
    void theyAreChangedOnlyInTheRepository() {
        Waiting.until(() -> had(keeper).size() == 1);
        long version = keeper.get(SEARCHES + "/feet").json().path("version").asLong();
        SavedSearch.Change change =
                new SavedSearch.Change("repository:cove", "", "lines", Map.of("q", List.of("x")), version);
        assertThat(keeper.put(SEARCHES + "/feet", change).detail()).contains("Change it there");
        assertThat(team.administrator().delete(SEARCHES + "/feet").status()).isEqualTo(403);
        assertThat(keeper.put(
                                SEARCHES + "/feet",
                                new SavedSearch.Change("everybody", "", "lines", Map.of("q", List.of("x")), null))
                        .status())
                .isEqualTo(200);
        assertThat(had(bo)).containsExactly("everybody feet x", "repository:cove feet depth_feet");
        assertThat(bo.get(SEARCHES + "/feet").json().path("of").asString()).isEqualTo("everybody");
        assertThat(keeper.put(SEARCHES + "/feet/checks/one?of=repository:cove", "")
                        .json()
                        .path("results")
                        .asInt())
                .as("the line of the code, and that of the file itself")
                .isEqualTo(2);
        assertThat(bo.put("/api/v1/watches/feet?of=repository:cove", "{}").status())
                .isEqualTo(200);
        assertThat(bo.put(SEARCHES + "/feet/checks/two?of=repository:cove", "").status())
                .isEqualTo(403);
    }

    @Test
    void exclusionSetsAndWorklistsComeAndGoWithTheFilesAsWell() throws IOException {
        cove.write(".oddbeacon/more.yaml", """
                        exclusion-sets:
                          charts:
                            description: Charts are drawn elsewhere
                            patterns: |
                              charts/
                        saved-searches:
                          depths:
                            subject: lines
                            text: depth_feet
                            worklist: true
                            replacement: depth_metres
                            scope:
                              except: charts
                        """).write("charts/north.c", "int depth_feet;\n");
        push();
        Waiting.until(() -> bo.get("/api/v1/worklists/depths/items").body().contains("cove.c"));
        assertThat(bo.get("/api/v1/worklists/depths/items").body()).doesNotContain("charts");
        assertThat(bo.get(SEARCHES + "/depths")
                        .json()
                        .path("replacement")
                        .path("with")
                        .asString())
                .isEqualTo("depth_metres");
        JsonNode set = bo.get("/api/v1/exclusion-sets/charts").json();
        assertThat(set.path("repository").asString()).isEqualTo("cove");
        assertThat(set.path("own").asBoolean()).isFalse();
        assertThat(bo.get("/api/v1/search/files?q=c&except=charts").body()).doesNotContain("north");
        assertThat(cleo.get("/api/v1/exclusion-sets").body()).doesNotContain("charts");
        assertThat(cleo.get("/api/v1/search/files?q=c&except=charts").status()).isEqualTo(400);
        assertThat(cleo.delete("/api/v1/exclusion-sets/charts").status()).isEqualTo(403);
        assertThat(keeper.delete("/api/v1/exclusion-sets/charts").detail()).contains("file of a repository");

        cove.write(
                ".oddbeacon/more.yaml",
                searches("depths", "depth_feet")
                        + "exclusion-sets:\n  charts:\n    by-default: true\n    patterns: charts/\n");
        push();
        Waiting.until(() -> !problems(bo).isEmpty());
        assertThat(problems(bo).getFirst()).contains("by-default");
        assertThat(bo.get("/api/v1/exclusion-sets").body()).contains("charts");

        cove.write(".oddbeacon/more.yaml", searches("depths", "depth_feet"));
        push();
        Waiting.until(() -> bo.get("/api/v1/worklists/depths/items").status() == 404);
        assertThat(bo.get("/api/v1/exclusion-sets").body()).doesNotContain("charts");
    }
}
