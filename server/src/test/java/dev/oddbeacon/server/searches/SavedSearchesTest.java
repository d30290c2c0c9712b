package dev.oddbeacon.server.searches;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Searches are kept for oneself, a team or everybody, run as they were asked, and never by somebody who may not. */
class SavedSearchesTest {
    private static final String SEARCHES = "/api/v1/saved-searches";

    private static TestTeam team;
    private static Requests keeper;
    private static Requests bo;
    private static Requests cleo;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        team = TestTeam.start(folder, "data");
        keeper = team.person("keeper", "maintainer", "bridge");
        bo = team.person("bo", "reader", "bridge");
        cleo = team.person("cleo", "reader");
        for (String name : List.of("tide", "hidden-cove")) {
            team.add(
                    name,
                    TestRepository.create(folder.resolve(name))
                            .write("a.txt", "depthFeet of " + name + "\n")
                            .commit("Gauge")
                            .path(),
                    name.equals("tide") ? "everybody" : "team:bridge");
        }
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    @AfterEach
    void clear() {
        for (Requests who : List.of(keeper, bo, cleo)) {
            for (JsonNode search : who.get(SEARCHES).json()) {
                who.delete(SEARCHES + "/" + search.path("name").asString() + "?of="
                        + search.path("of").asString());
            }
        }
    }

    private static SavedSearch.Change lines(String of, String text, String... more) {
        Map<String, List<String>> parameters = new java.util.HashMap<>(Map.of("q", List.of(text)));
        for (int i = 0; i < more.length; i += 2) {
            parameters.put(more[i], List.of(more[i + 1]));
        }
        return new SavedSearch.Change(of, "What it is for", "lines", parameters, null);
    }

    private static Answer save(Requests who, String name, SavedSearch.Change change) {
        return who.put(SEARCHES + "/" + name, change);
    }

    private static List<String> had(Requests who) {
        List<String> had = new ArrayList<>();
        who.get(SEARCHES)
                .json()
                .forEach(search -> had.add(
                        search.path("of").asString() + " " + search.path("name").asString()));
        return had;
    }

    @Test
    void eachHasTheirOwnThoseOfTheirTeamsAndEverybodys() {
        assertThat(save(keeper, "feet", lines("everybody", "depthFeet")).status())
                .isEqualTo(200);
        assertThat(save(bo, "feet", lines("me", "feet")).status()).isEqualTo(200);
        assertThat(save(bo, "cove", lines("team:bridge", "cove")).status()).isEqualTo(200);
        assertThat(had(keeper)).containsExactly("team:bridge cove", "everybody feet");
        assertThat(had(bo)).containsExactly("team:bridge cove", "me feet", "everybody feet");
        assertThat(had(cleo)).containsExactly("everybody feet");
        assertThat(bo.get(SEARCHES + "/feet").json().path("of").asString()).isEqualTo("me");
        assertThat(bo.get(SEARCHES + "/feet", "of", "everybody")
                        .json()
                        .path("changedBy")
                        .asString())
                .isEqualTo("keeper");
        assertThat(cleo.get(SEARCHES + "/cove").status()).isEqualTo(404);
    }

    @Test
    void readersKeepTheirOwnAndTheirTeamsAndNothingElse() {
        assertThat(save(bo, "feet", lines("everybody", "depthFeet")).status()).isEqualTo(403);
        assertThat(save(cleo, "feet", lines("team:bridge", "depthFeet")).status())
                .isEqualTo(403);
        assertThat(save(keeper, "feet", lines("everybody", "depthFeet")).status())
                .isEqualTo(200);
        assertThat(bo.delete(SEARCHES + "/feet").status()).isEqualTo(403);
        assertThat(team.service().with(Map.of()).get(SEARCHES).status()).isEqualTo(401);
        assertThat(had(cleo)).containsExactly("everybody feet");
    }

    @Test
    void whatNamesAHiddenRepositoryIsNotThereForWhoeverMayNotSeeIt() {
        assertThat(save(keeper, "cove", lines("everybody", "depthFeet", "repo", "hidden-cove"))
                        .status())
                .isEqualTo(200);
        assertThat(save(
                                keeper,
                                "expressed",
                                new SavedSearch.Change(
                                        "everybody",
                                        "",
                                        "lines",
                                        Map.of(
                                                "q",
                                                List.of("depthFeet repo(hidden-cove)"),
                                                "reading",
                                                List.of("expression")),
                                        null))
                        .status())
                .isEqualTo(200);
        keeper.put("/api/v1/exclusion-sets/lifted", "{\"description\":\"\",\"byDefault\":true,\"patterns\":\"old/\"}");
        assertThat(save(keeper, "lifting", lines("everybody", "depthFeet", "repo", "hidden-cove", "lift", "lifted"))
                        .status())
                .isEqualTo(200);
        assertThat(keeper.delete("/api/v1/exclusion-sets/lifted").status()).isEqualTo(204);
        assertThat(had(bo)).hasSize(3);
        assertThat(cleo.get(SEARCHES).body()).doesNotContain("cove");
        assertThat(cleo.get(SEARCHES + "/cove").body()).doesNotContain("hidden-cove");
        assertThat(cleo.get(SEARCHES + "/file").body()).doesNotContain("cove");
    }

    @Test
    void aChangeNamesTheVersionThatWasSeen() {
        JsonNode saved = save(bo, "feet", lines("me", "feet")).json();
        assertThat(save(bo, "feet", lines("me", "metres")).status()).isEqualTo(409);
        SavedSearch.Change next = new SavedSearch.Change(
                "me",
                "",
                "lines",
                Map.of("q", List.of("metres")),
                saved.path("version").asLong());
        assertThat(save(bo, "feet", next).status()).isEqualTo(200);
        assertThat(save(bo, "feet", next).status()).isEqualTo(409);
        assertThat(bo.get(SEARCHES + "/feet")
                        .json()
                        .path("parameters")
                        .path("q")
                        .path(0)
                        .asString())
                .isEqualTo("metres");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "lines | q | \"a(\" | reading | regex | is not closed",
                "lines | q | a | repo | nowhere | There is no repository nowhere",
                "lines | q | a | except | lost | There is no exclusion set lost",
                "lines | q | a | limit | 5 | not kept with a search",
                "lines | q | a | colour | red | has no parameter \"colour\"",
                "pages | q | a | case | auto | lines, files, symbols, commits or scope",
                "symbols | q | a | kind | gadget | There is no kind",
                "files | q | a | size | much | size",
                "commits | q | a | after | soon | soon"
            })
    void whatCannotBeRunIsNotKept(
            String subject, String name, String value, String second, String secondValue, String said) {
        Answer answer = save(
                bo,
                "odd",
                new SavedSearch.Change(
                        "me", "", subject, Map.of(name, List.of(value), second, List.of(secondValue)), null));
        assertThat(answer.status()).as(answer.body()).isEqualTo(400);
        assertThat(answer.detail()).contains(said);
        assertThat(had(bo)).isEmpty();
    }

    @Test
    void whatCannotBeRunAnyMoreSaysWhy() {
        keeper.put("/api/v1/exclusion-sets/old", "{\"description\":\"\",\"byDefault\":false,\"patterns\":\"old/\"}");
        assertThat(save(bo, "feet", lines("me", "feet", "except", "old")).status())
                .isEqualTo(200);
        assertThat(keeper.delete("/api/v1/exclusion-sets/old").status()).isEqualTo(204);
        assertThat(bo.get(SEARCHES + "/feet").json().path("problem").asString())
                .startsWith("There is no exclusion set old.");
    }

    @Test
    void aFileOfThemIsTakenAsItWasWritten() {
        Answer first =
                save(bo, "feet", lines("me", "depth: \"Feet\"\n  # 5", "notTrait", "documentation", "case", "match"));
        assertThat(first.status()).as(first.body()).isEqualTo(200);
        save(
                bo,
                "yes",
                new SavedSearch.Change(
                        "me", "", "symbols", Map.of("q", List.of("true"), "kind", List.of("class", "method")), null));
        save(bo, "metres", replaced("lines", "depth(Feet)", new SavedSearch.Instead("$1: m", true, "both", null)));
        List<JsonNode> before = new ArrayList<>();
        bo.get(SEARCHES).json().forEach(before::add);
        String file = bo.get(SEARCHES + "/file").body();
        assertThat(file).startsWith("saved-searches:\n  feet:\n    description: What it is for\n    subject: lines\n");
        assertThat(file).contains("    scope:\n      not-trait: documentation\n");
        assertThat(bo.post(SEARCHES + "/file?of=me", "application/yaml", file).status())
                .isEqualTo(409);
        bo.delete(SEARCHES + "/feet");
        bo.delete(SEARCHES + "/yes");
        bo.delete(SEARCHES + "/metres");
        Answer taken = bo.post(SEARCHES + "/file?of=me", "application/yaml", file);
        assertThat(taken.status()).as(taken.body()).isEqualTo(200);
        List<JsonNode> after = new ArrayList<>();
        bo.get(SEARCHES).json().forEach(after::add);
        assertThat(after.stream().map(search -> search.path("parameters")))
                .isEqualTo(
                        before.stream().map(search -> search.path("parameters")).toList());
        assertThat(bo.get(SEARCHES + "/metres").json().path("replacement").toString())
                .isEqualTo("{\"with\":\"$1: m\",\"keepCase\":true,\"in\":\"both\",\"mentions\":null}");
    }

    private static SavedSearch.Change replaced(String subject, String text, SavedSearch.Instead instead) {
        Map<String, List<String>> parameters = subject.equals("lines")
                ? Map.of("q", List.of(text), "reading", List.of("regex"))
                : Map.of("q", List.of(text));
        return new SavedSearch.Change("me", "", subject, parameters, instead, null, null);
    }

    @Test
    void aReplacementThatCannotBeIsNotKept() {
        SavedSearch.Instead wrongGroup = new SavedSearch.Instead("$2", null, null, null);
        assertThat(save(bo, "x", replaced("lines", "(a)", wrongGroup)).detail()).contains("no group 2");
        assertThat(save(bo, "x", replaced("files", "a", wrongGroup)).detail()).contains("lines or symbols");
        assertThat(save(bo, "x", replaced("lines", "a", new SavedSearch.Instead("b", null, "names", null)))
                        .detail())
                .contains("text, paths, both");
        assertThat(save(bo, "x", replaced("lines", "a", new SavedSearch.Instead(null, null, null, null)))
                        .status())
                .isEqualTo(400);
        assertThat(had(bo)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "\"saved-searches:\n  a: {subject: lines, text: [\" | Line",
                "\"saved-searches: {}\" | has no searches",
                "\"saved-searches:\n  a: {text: x}\" | The search a in the file has no subject",
                "\"saved-searches:\n  a: {subject: lines, text: x, scope: {colour: red}}\" | has no \"\"colour\"\"",
                "\"saved-searches:\n  a: {subject: lines, text: x, depth: 5}\" | The search a: A search for lines has no parameter"
            })
    void aMistakeInAFileIsToldAndNothingIsTaken(String file, String said) {
        Answer answer = bo.post(SEARCHES + "/file?of=me", "application/yaml", file);
        assertThat(answer.status()).as(answer.body()).isEqualTo(400);
        assertThat(answer.detail()).contains(said.replace("\"\"", "\"")).contains("Nothing was changed");
        assertThat(had(bo)).isEmpty();
    }

    @Test
    void aScopeAloneIsKeptAndFindsNothing() {
        SavedSearch.Change scope = new SavedSearch.Change(
                "me", "Ashore", "scope", Map.of("repo", List.of("tide"), "under", List.of("a")), null);
        assertThat(save(bo, "ashore", scope).status()).isEqualTo(200);
        assertThat(bo.get(SEARCHES + "/ashore").json().path("parameters").toString())
                .isEqualTo("{\"repo\":[\"tide\"],\"under\":[\"a\"]}");
        assertThat(bo.get(SEARCHES + "/file").body()).contains("    subject: scope\n");
        assertThat(bo.get(SEARCHES + "/ashore/results").detail()).contains("Pick it in a search");
        assertThat(save(bo, "other", new SavedSearch.Change("me", "", "scope", Map.of("q", List.of("x")), null))
                        .detail())
                .contains("no parameter \"q\"");
        assertThat(save(bo, "other", new SavedSearch.Change("me", "", "scope", Map.of("repo", List.of("gone")), null))
                        .status())
                .isEqualTo(400);
    }
}
