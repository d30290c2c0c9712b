package dev.oddbeacon.server.exclusion;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Exclusion sets over HTTP: several people change them, and a mistake changes nothing. */
class ExclusionSetsTest {
    private static final String SETS = "/api/v1/exclusion-sets";
    private static final JsonMapper JSON = JsonMapper.shared();

    @TempDir
    static Path folder;

    private static List<String> database;
    private static TestService service;

    @BeforeAll
    static void start() throws IOException {
        database = Database.shared().create();
        TestRepository signs = TestRepository.create(folder.resolve("signs"))
                .write("locales/nl.po", "veerboot depth\n")
                .write("locales/da.po", "faerge depth\n")
                .write("src/sign.c", "int depth;\n")
                .write("README.md", "Signs show the depth.\n")
                .commit("Signs");
        service = TestService.start(database, folder.resolve("data")).add("signs", signs.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    @AfterEach
    void clear() {
        for (JsonNode set : service.get(SETS).json()) {
            service.delete(SETS + "/" + set.path("name").asString());
        }
    }

    /** The body of a change. @param version null for a new set */
    private static String change(String patterns, boolean byDefault, Long version) {
        var body = JSON.createObjectNode().put("patterns", patterns).put("byDefault", byDefault);
        return version == null ? body.toString() : body.put("version", version).toString();
    }

    private static long save(String name, String patterns, boolean byDefault) {
        TestService.Answer saved = service.put(SETS + "/" + name, change(patterns, byDefault, null));
        assertThat(saved.status()).as(saved.body()).isEqualTo(200);
        return saved.json().path("version").asLong();
    }

    private static List<String> paths(String... parameters) {
        List<String> paths = new ArrayList<>();
        service.get("/api/v1/search/lines", parameters)
                .json()
                .path("files")
                .forEach(file -> paths.add(file.path("path").asString()));
        return paths;
    }

    @Nested
    class ASet {
        @Test
        void takesFilesOutWhereItIsNamed() {
            save("translations", "locales/\n", false);
            assertThat(paths("q", "depth")).hasSize(4);
            assertThat(paths("q", "depth", "except", "translations")).containsExactly("README.md", "src/sign.c");
        }

        @Test
        void byDefaultTakesThemOutEverywhereUnlessItIsLifted() {
            save("translations", "*.po\n", true);
            assertThat(paths("q", "depth")).containsExactly("README.md", "src/sign.c");
            assertThat(paths("q", "depth", "lift", "translations")).hasSize(4);
        }

        @Test
        void countsFromTheNextSearchOnAsItIsThen() {
            long version = save("translations", "locales/\n", true);
            assertThat(paths("q", "depth")).hasSize(2);
            service.put(SETS + "/translations", change("locales/da.po\n", true, version));
            assertThat(paths("q", "depth")).containsExactly("README.md", "locales/nl.po", "src/sign.c");
            service.delete(SETS + "/translations");
            assertThat(paths("q", "depth")).hasSize(4);
        }

        @Test
        void thatIsGoneIsAMistakeAndNotAnEmptyOne() {
            TestService.Answer answer = service.get("/api/v1/search/lines", "q", "depth", "except", "translations");
            assertThat(answer.status()).isEqualTo(400);
            assertThat(answer.detail()).contains("translations");
        }

        @Test
        void isThereAfterARestart() {
            save("kept", "*.md\n", true);
            service.close();
            service = TestService.start(database, folder.resolve("data"));
            service.awaitReady("signs");
            assertThat(service.get(SETS + "/kept").json().path("patterns").asString())
                    .isEqualTo("*.md\n");
            assertThat(paths("q", "depth")).doesNotContain("README.md").hasSize(3);
        }
    }

    @Nested
    class SeveralPeople {
        @Test
        void doNotOverwriteEachOther() {
            long version = save("translations", "locales/\n", false);
            assertThat(service.put(SETS + "/translations", change("*.po\n", false, version))
                            .status())
                    .isEqualTo(200);
            TestService.Answer late = service.put(SETS + "/translations", change("*.md\n", false, version));
            assertThat(late.status()).isEqualTo(409);
            assertThat(late.detail()).contains("Nothing was saved");
            assertThat(service.get(SETS + "/translations")
                            .json()
                            .path("patterns")
                            .asString())
                    .isEqualTo("*.po\n");
        }

        @Test
        void whoChangeOneVersionAtOnceAreToldApart() throws Exception {
            long version = save("translations", "locales/\n", false);
            List<Callable<Integer>> changes = new ArrayList<>();
            for (int i = 0; i < 8; i++) {
                String pattern = "folder" + i + "/\n";
                changes.add(() -> service.put(SETS + "/translations", change(pattern, false, version))
                        .status());
            }
            List<Integer> statuses = new ArrayList<>();
            try (ExecutorService callers = Executors.newVirtualThreadPerTaskExecutor()) {
                for (Future<Integer> status : callers.invokeAll(changes)) {
                    statuses.add(status.get());
                }
            }
            assertThat(statuses).filteredOn(status -> status == 200).hasSize(1);
            assertThat(statuses).filteredOn(status -> status == 409).hasSize(7);
        }

        @Test
        void cannotMakeTheSameTwice() {
            save("translations", "locales/\n", false);
            TestService.Answer again = service.put(SETS + "/translations", change("*.po\n", false, null));
            assertThat(again.status()).isEqualTo(409);
            assertThat(again.detail()).contains("already");
        }

        @Test
        void areToldWhenWhatTheyChangeWasRemoved() {
            long version = save("translations", "locales/\n", false);
            assertThat(service.delete(SETS + "/translations?version=" + (version + 5))
                            .status())
                    .isEqualTo(409);
            assertThat(service.delete(SETS + "/translations?version=" + version).status())
                    .isEqualTo(204);
            TestService.Answer late = service.put(SETS + "/translations", change("*.po\n", false, version));
            assertThat(late.status()).isEqualTo(409);
            assertThat(late.detail()).contains("removed by somebody else");
            assertThat(service.delete(SETS + "/translations").status()).isEqualTo(404);
        }
    }

    @Nested
    class AMistake {
        @ParameterizedTest
        @ValueSource(strings = {"%20first", "a%2Fb", "-dash", "semi;colon"})
        void inANameIsToldAndNothingIsMade(String name) {
            TestService.Answer answer = service.put(SETS + "/" + name, change("*.md\n", false, null));
            assertThat(answer.status()).isBetween(400, 404);
            assertThat(service.get(SETS).json()).isEmpty();
        }

        @ParameterizedTest
        @ValueSource(strings = {"", "# only a comment\n", "src/[a-\n"})
        void inThePatternsIsToldAndNothingIsMade(String patterns) {
            TestService.Answer answer = service.put(SETS + "/broken", change(patterns, false, null));
            assertThat(answer.status()).as(answer.body()).isEqualTo(400);
            assertThat(service.get(SETS).json()).isEmpty();
        }

        @Test
        void inOneSetOfAFileMakesNoneOfThem() {
            String file =
                    "exclusion-sets:\n  good:\n    patterns: |\n      *.md\n  bad:\n    description: no patterns\n";
            TestService.Answer answer = service.post(SETS + "/file", "application/yaml", file);
            assertThat(answer.status()).isEqualTo(400);
            assertThat(answer.detail()).contains("bad").contains("Nothing was changed");
            assertThat(service.get(SETS).json()).isEmpty();
        }

        @Test
        void inAFileIsToldWithItsLine() {
            String file = "exclusion-sets:\n  good:\n    patterns: '*.md'\n    colour: red\n";
            TestService.Answer answer = service.post(SETS + "/file", "application/yaml", file);
            assertThat(answer.status()).isEqualTo(400);
            assertThat(answer.detail()).contains("Line 4").contains("colour");
        }
    }

    @Nested
    class AFile {
        @Test
        void bringsBackWhatWasExported() {
            save("docs", "*.md\n!README.md\n", true);
            save("translations", "locales/\n*.po\n", false);
            String file = service.get(SETS + "/file").body();
            JsonNode before = service.get(SETS).json();
            clear();
            TestService.Answer imported = service.post(SETS + "/file", "application/yaml", file);
            assertThat(imported.status()).as(imported.body()).isEqualTo(200);
            JsonNode after = service.get(SETS).json();
            assertThat(after).hasSize(2);
            for (int i = 0; i < 2; i++) {
                for (String part : List.of("name", "description", "byDefault", "patterns")) {
                    assertThat(after.path(i).path(part))
                            .as(part)
                            .isEqualTo(before.path(i).path(part));
                }
            }
        }

        @Test
        void replacesSetsOnlyIfThatIsAskedFor() {
            save("translations", "locales/\n", false);
            String file = "exclusion-sets:\n  translations:\n    patterns: '*.po'\n  docs:\n    patterns: '*.md'\n";
            TestService.Answer refused = service.post(SETS + "/file", "application/yaml", file);
            assertThat(refused.status()).isEqualTo(409);
            assertThat(refused.detail()).contains("translations").doesNotContain("docs");
            assertThat(service.get(SETS).json()).hasSize(1);
            assertThat(service.post(SETS + "/file?replace=true", "application/yaml", file)
                            .status())
                    .isEqualTo(200);
            assertThat(service.get(SETS + "/translations")
                            .json()
                            .path("patterns")
                            .asString())
                    .isEqualTo("*.po");
        }
    }

    @Nested
    class APreview {
        private JsonNode preview(String patterns, String parameters) {
            String body = JSON.createObjectNode().put("patterns", patterns).toString();
            TestService.Answer answer = service.post(SETS + "/preview" + parameters, "application/json", body);
            assertThat(answer.status()).as(answer.body()).isEqualTo(200);
            return answer.json();
        }

        @Test
        void countsWhatEachPatternTakesAndSavesNothing() {
            JsonNode effect = preview("locales/*\n!locales/da.po\n*.md\n", "");
            assertThat(effect.path("files").asInt()).isEqualTo(4);
            assertThat(effect.path("left").asInt()).isEqualTo(2);
            assertThat(service.get(SETS).json()).isEmpty();
        }

        @Test
        void looksOnlyIntoTheScope() {
            assertThat(preview("*.md\n", "?type=c").path("files").asInt()).isEqualTo(1);
        }

        @Test
        void warnsOfAPatternThatTakesNothing() {
            JsonNode pattern = preview("*.kelp\n", "").path("patterns").path(0);
            assertThat(pattern.path("files").asInt()).isZero();
            assertThat(pattern.path("warning").asString()).isNotBlank();
        }
    }
}
