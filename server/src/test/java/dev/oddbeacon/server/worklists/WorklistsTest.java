package dev.oddbeacon.server.worklists;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.api.Worklist.Day;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Results of a saved search are ticked off by several people, while the code under them changes. */
class WorklistsTest {
    private static final String LIST = "/api/v1/worklists/feet";

    @TempDir
    private Path folder;

    private TestTeam team;
    private Requests keeper;
    private Requests bo;
    private Requests cleo;
    private TestRepository tide;
    private TestRepository cove;

    @BeforeEach
    void start() throws IOException {
        team = TestTeam.start(folder, "data");
        keeper = team.person("keeper", "maintainer", "bridge");
        bo = team.person("bo", "reader", "bridge");
        cleo = team.person("cleo", "reader");
        tide = TestRepository.create(folder.resolve("tide"))
                .write("a.c", "one(depth_feet);\n\nsecond_call(depth_feet, north, south);\n")
                .write("b.c", "third(depth_feet);\n")
                .commit("Gauge");
        cove = TestRepository.create(folder.resolve("cove"))
                .write("cove.c", "cove(depth_feet);\n")
                .commit("Cove");
        team.add("tide", tide.path(), "everybody");
        team.add("hidden-cove", cove.path(), "team:bridge");
        assertThat(keeper.put(
                                "/api/v1/saved-searches/feet",
                                new SavedSearch.Change(
                                        "everybody", "", "lines", Map.of("q", List.of("depth_feet")), null))
                        .status())
                .isEqualTo(200);
    }

    @AfterEach
    void stop() {
        team.close();
    }

    private void begin() {
        assertThat(keeper.put(LIST, "").status()).isEqualTo(200);
        Waiting.until(() -> items(bo).size() == 4);
    }

    private static List<String> items(Requests who, String... more) {
        List<String> items = new ArrayList<>();
        for (JsonNode item : who.get(LIST + "/items", more).json().path("items")) {
            JsonNode result = item.path("result");
            items.add(result.path("path").asString() + ":" + result.path("line").asInt() + " "
                    + item.path("state").asString()
                    + (item.path("claimedBy").isNull()
                            ? ""
                            : " " + item.path("claimedBy").asString()));
        }
        return items;
    }

    private static JsonNode item(Requests who, String path) {
        for (JsonNode item : who.get(LIST + "/items").json().path("items")) {
            if (item.path("result").path("path").asString().equals(path)) {
                return item;
            }
        }
        throw new AssertionError("no item in " + path);
    }

    private static Answer change(Requests who, JsonNode item, Worklist.Change change) {
        return who.put(LIST + "/items/" + item.path("id").asLong(), change);
    }

    private static Worklist.Change state(String state, String why) {
        return new Worklist.Change(state, null, why, null, null);
    }

    private void push(TestRepository repository, String name) throws IOException {
        repository.commit("Change");
        team.administrator().post("/api/v1/repositories/" + name + "/refresh", "application/json", "");
        team.awaitReady(name);
    }

    @Test
    void itemsStayTheSameAreGoneAndComeBack() throws IOException {
        begin();
        assertThat(items(bo)).containsExactly("cove.c:1 open", "a.c:1 open", "a.c:3 open", "b.c:1 open");
        long second = item(bo, "b.c").path("id").asLong();
        assertThat(change(bo, item(bo, "b.c"), new Worklist.Change(null, true, null, null, null))
                        .status())
                .isEqualTo(200);
        tide.git("mv", "b.c", "moved.c");
        tide.write("a.c", "\n\none(depth_feet);\nsecond_call(depth_feet, north, east);\nnext(depth_feet);\n");
        push(tide, "tide");
        Waiting.until(() -> items(bo).size() == 5);
        assertThat(items(bo))
                .containsExactly("cove.c:1 open", "a.c:3 open", "a.c:4 open", "a.c:5 open", "moved.c:1 open bo");
        assertThat(item(bo, "moved.c").path("id").asLong()).isEqualTo(second);

        change(bo, item(bo, "moved.c"), state("done", null));
        tide.write("moved.c", "third(metres);\n");
        push(tide, "tide");
        Waiting.until(() -> items(bo).contains("moved.c:1 gone bo"));
        tide.write("moved.c", "third(depth_feet);\n");
        push(tide, "tide");
        Waiting.until(() -> items(bo).contains("moved.c:1 open bo"));
        assertThat(item(bo, "moved.c").path("id").asLong()).isEqualTo(second);
        JsonNode list = bo.get("/api/v1/worklists").json().path(0);
        assertThat(list.path("open").asInt()).isEqualTo(5);
        assertThat(list.path("claimed").asInt()).isEqualTo(1);
    }

    @Test
    void eachTicksOffWhatTheySeeAndNobodyOverwritesAnother() {
        begin();
        assertThat(items(cleo)).containsExactly("a.c:1 open", "a.c:3 open", "b.c:1 open");
        assertThat(change(cleo, item(bo, "cove.c"), state("done", null)).status())
                .isEqualTo(404);
        JsonNode seen = item(cleo, "b.c");
        long version = seen.path("version").asLong();
        assertThat(change(bo, seen, new Worklist.Change("done", true, null, null, version))
                        .status())
                .isEqualTo(200);
        assertThat(change(cleo, seen, new Worklist.Change(null, true, null, null, version))
                        .status())
                .isEqualTo(409);
        assertThat(items(cleo)).contains("b.c:1 done bo");
        assertThat(change(cleo, seen, state("stays", "")).detail()).contains("why");
        assertThat(change(cleo, seen, state("stays", "Of the old gauges")).status())
                .isEqualTo(200);
        assertThat(item(bo, "b.c").path("why").asString()).isEqualTo("Of the old gauges");
        assertThat(item(bo, "b.c").path("changedBy").asString()).isEqualTo("cleo");
        assertThat(items(bo, "state", "stays")).containsExactly("b.c:1 stays bo");
        assertThat(change(bo, seen, state("gone", null)).detail()).contains("by itself");
        assertThat(change(bo, seen, state("lost", null)).status()).isEqualTo(400);
        assertThat(cleo.get("/api/v1/worklists").json().path(0).path("open").asInt())
                .isEqualTo(2);
        assertThat(cleo.get(LIST + "/left").body()).doesNotContain("hidden");
        assertThat(cleo.get(LIST + "/left")
                        .json()
                        .path("days")
                        .path(0)
                        .path("items")
                        .asInt())
                .isEqualTo(2);
    }

    @Test
    void whoeverLooksAgainIsToldOnlyWhatHasChanged() {
        begin();
        team.service().setClock(Duration.ofMinutes(1)); // what was changed just before may be told again
        String at = bo.get(LIST + "/items").json().path("at").asString();
        assertThat(items(bo, "since", at)).isEmpty();
        change(cleo, item(cleo, "b.c"), state("done", null));
        assertThat(items(bo, "since", at)).containsExactly("b.c:1 done");
        assertThat(bo.get(LIST + "/items", "since", "then").status()).isEqualTo(400);
    }

    @Test
    void aListIsMadeAndEndedByWhoeverMayChangeTheSearch() {
        assertThat(bo.put(LIST, "").status()).isEqualTo(403);
        assertThat(bo.get(LIST + "/items").status()).isEqualTo(404);
        begin();
        assertThat(bo.delete(LIST).status()).isEqualTo(403);
        change(bo, item(bo, "b.c"), state("done", null));
        assertThat(keeper.put(LIST, "").status()).as("it is there already").isEqualTo(200);
        assertThat(items(bo)).contains("b.c:1 done");
        assertThat(keeper.delete(LIST).status()).isEqualTo(204);
        assertThat(bo.get("/api/v1/worklists").json()).isEmpty();
        begin();
        assertThat(items(bo)).contains("b.c:1 open");
    }

    @Test
    void aSearchThatIsChangedHasOtherItems() throws IOException {
        begin();
        long version =
                keeper.get("/api/v1/saved-searches/feet").json().path("version").asLong();
        keeper.put(
                "/api/v1/saved-searches/feet",
                new SavedSearch.Change("everybody", "", "lines", Map.of("q", List.of("third")), version));
        Waiting.until(() -> items(bo, "state", "open").equals(List.of("b.c:1 open")));
        assertThat(items(bo, "state", "gone")).hasSize(3);
    }

    @Test
    void whatIsLeftReachesZeroAtThePaceOfTheLastWeeks() {
        LocalDate today = LocalDate.of(2026, 6, 29);
        assertThat(Worklists.zero(List.of(), today)).isEmpty();
        assertThat(Worklists.zero(List.of(day(1, 100), day(29, 60)), today)).contains(today.plusDays(42));
        assertThat(Worklists.zero(List.of(day(1, 100), day(15, 200), day(29, 100)), today))
                .isEmpty();
        assertThat(Worklists.zero(List.of(day(29, 50)), today)).isEmpty();
        assertThat(Worklists.zero(List.of(day(1, 9), day(20, 0)), today)).contains(LocalDate.of(2026, 6, 20));
    }

    private static Day day(int day, int items) {
        return new Day(LocalDate.of(2026, 6, day), items, List.of(), List.of());
    }

    @Test
    void ownersOfFilesAreTold() throws IOException {
        begin();
        assertThat(item(bo, "a.c").path("owners").toString()).isEqualTo("[]");
        tide.write("CODEOWNERS", "*.c @gauges\nb.c @signs bo@quillhaven.example\n");
        push(tide, "tide");
        Waiting.until(() -> item(bo, "b.c").path("owners").toString().equals("[\"@signs\",\"bo@quillhaven.example\"]"));
        assertThat(items(bo, "owner", "@gauges")).containsExactly("a.c:1 open", "a.c:3 open");
        assertThat(items(bo, "owner", "@nobody")).isEmpty();
        Waiting.until(() -> bo.get(LIST + "/left").body().contains("@gauges"));
        tide.write(".github/CODEOWNERS", "* @all\n");
        push(tide, "tide");
        Waiting.until(() -> items(bo, "owner", "@all").size() == 3);
        // owners of items are taken over at the same time
        Waiting.until(() -> change(bo, item(bo, "b.c"), state("done", null)).status() == 200);
        Waiting.until(
                () -> bo.get(LIST + "/left")
                        .json()
                        .path("days")
                        .path(0)
                        .path("owners")
                        .toString()
                        .equals(
                                "[{\"owners\":\"\",\"items\":1},{\"owners\":\"@all\",\"items\":2},"
                                        + "{\"owners\":\"@gauges\",\"items\":0},{\"owners\":\"@signs bo@quillhaven.example\",\"items\":0}]"));
    }
}
