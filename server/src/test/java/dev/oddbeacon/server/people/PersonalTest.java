package dev.oddbeacon.server.people;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import dev.oddbeacon.server.records.DeskRecords;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** What is one person's alone: exclusion sets of one's own, and what follows from browser to browser. */
class PersonalTest {
    private static final String SETS = "/api/v1/exclusion-sets";

    private static TestTeam team;
    private static Requests bo;
    private static Requests cleo;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        team = TestTeam.start(folder, "data");
        team.add(
                "tide",
                TestRepository.create(folder.resolve("tide"))
                        .write("a.txt", "low tide\n")
                        .write("gen/b.txt", "low tide, made by a tool\n")
                        .write("old/c.txt", "low tide of before\n")
                        .commit("Gauge")
                        .path(),
                "everybody");
        bo = team.person("bo", "reader");
        cleo = team.person("cleo", "maintainer");
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    private static int hits(Requests who, String... parameters) {
        String[] all = new String[parameters.length + 4];
        System.arraycopy(new String[] {"q", "low", "counts", "exact"}, 0, all, 0, 4);
        System.arraycopy(parameters, 0, all, 4, parameters.length);
        Answer answer = who.get("/api/v1/search/lines", all);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer.json().path("counts").path("hits").asInt();
    }

    private static Answer save(Requests who, String name, String query, String pattern, boolean byDefault) {
        return who.put(SETS + "/" + name + query, new ExclusionSetInfo.Change("", byDefault, pattern, null));
    }

    @Nested
    class ExclusionSets {
        @AfterEach
        void clear() {
            for (Requests who : List.of(bo, cleo)) {
                for (JsonNode set : who.get(SETS).json()) {
                    String own = set.path("own").asBoolean() ? "?own=true" : "";
                    cleo.delete(SETS + "/" + set.path("name").asString());
                    who.delete(SETS + "/" + set.path("name").asString() + own);
                }
            }
        }

        @Test
        void ofOnesOwnAreAppliedForOneselfAlone() {
            assertThat(hits(bo)).isEqualTo(3);
            Answer saved = save(bo, "tools", "?own=true", "gen/", true);
            assertThat(saved.status()).as(saved.body()).isEqualTo(200);
            assertThat(saved.json().path("own").asBoolean()).isTrue();
            assertThat(hits(bo)).isEqualTo(2);
            assertThat(hits(bo, "lift", "tools")).isEqualTo(3);
            assertThat(hits(cleo)).isEqualTo(3);
            assertThat(cleo.get(SETS).body()).doesNotContain("tools");
            assertThat(cleo.get(SETS + "/tools").status()).isEqualTo(404);
            assertThat(cleo.get(SETS + "/file").body()).doesNotContain("tools");
            Answer unknown = cleo.get("/api/v1/search/lines", "q", "low", "except", "tools");
            assertThat(unknown.status()).isEqualTo(400);
            assertThat(unknown.detail()).startsWith("There is no exclusion set tools.");
        }

        @Test
        void ofOnesOwnStandInPlaceOfSharedOnesOfTheirName() {
            save(cleo, "noise", "", "gen/", true);
            assertThat(List.of(hits(bo), hits(cleo))).containsExactly(2, 2);
            save(bo, "noise", "?own=true", "gen/\nold/", true);
            assertThat(List.of(hits(bo), hits(cleo))).containsExactly(1, 2);
            assertThat(bo.get(SETS).json()).hasSize(1);
            assertThat(bo.delete(SETS + "/noise?own=true").status()).isEqualTo(204);
            assertThat(List.of(hits(bo), hits(cleo))).containsExactly(2, 2);
        }

        @ParameterizedTest
        @ValueSource(strings = {"", "?own=false", "?own=false&own=true", "?own=true&own=false", "?own=yes"})
        void thatAllShareAreNotChangedByReaders(String query) {
            save(cleo, "noise", "", "gen/", false);
            Answer refused = bo.put(SETS + "/noise" + query, new ExclusionSetInfo.Change("", true, "**", 0L));
            assertThat(refused.status()).isEqualTo(403);
            assertThat(bo.delete(SETS + "/noise" + query).status()).isEqualTo(403);
            assertThat(bo.post(SETS + "/file" + query, "application/yaml", "exclusion-sets: {}")
                            .status())
                    .isEqualTo(403);
            assertThat(cleo.get(SETS + "/noise").json().path("patterns").asString())
                    .isEqualTo("gen/");
        }
    }

    @Nested
    class Desk {
        @Test
        void isOnePersonsAndIsKeptEncrypted() {
            List<Map<String, String>> searches = List.of(Map.of("q", "the salary of everybody"));
            assertThat(bo.put("/api/v1/desk/searches", searches).status()).isEqualTo(204);
            assertThat(bo.put("/api/v1/desk/layout", Map.of("dense", true)).status())
                    .isEqualTo(204);
            assertThat(bo.get("/api/v1/desk").body())
                    .isEqualTo("{\"layout\":{\"dense\":true},\"searches\":[{\"q\":\"the salary of everybody\"}]}");
            assertThat(cleo.get("/api/v1/desk").body()).isEqualTo("{}");
            assertThat(team.administrator().get("/api/v1/desk").body()).isEqualTo("{}");
            assertThat(team.service().bean(DeskRecords.class).findAll())
                    .hasSize(2)
                    .allSatisfy(record -> assertThat(new String(record.content(), StandardCharsets.ISO_8859_1))
                            .doesNotContain("salary"));
            bo.put("/api/v1/desk/searches", List.of());
            assertThat(bo.get("/api/v1/desk").json().path("searches").size()).isZero();
        }

        @Test
        void hasThreePartsOfSomeLength() {
            assertThat(cleo.put("/api/v1/desk/drawer", List.of()).status()).isEqualTo(404);
            assertThat(cleo.put("/api/v1/desk/opened", List.of("x".repeat(200_001)))
                            .status())
                    .isEqualTo(400);
            assertThat(cleo.put("/api/v1/desk/opened", "{").status()).isEqualTo(400);
            assertThat(cleo.get("/api/v1/desk").body()).isEqualTo("{}");
        }
    }
}
