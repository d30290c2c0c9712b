package dev.oddbeacon.server.files;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

class SubmodulesTest {
    @TempDir
    private static Path folder;

    private static TestService service;
    private static String wanted;

    @BeforeAll
    static void start() throws IOException {
        service = TestService.start(Database.shared().create(), folder.resolve("data"));
        TestRepository charts = TestRepository.create(folder.resolve("charts"))
                .write("north.txt", "shoals\n")
                .commit("North");
        wanted = charts.git("rev-parse", "HEAD").strip();
        charts.write("south.txt", "deep\n").commit("South");
        TestRepository harbour = TestRepository.create(folder.resolve("harbour"))
                .write(".gitmodules", """
                        [submodule "charts"]
                        	path = vendor/charts
                        	url = ../charts
                        [submodule "elsewhere"]
                        	path = vendor/elsewhere
                        	url = https://elsewhere.example/tide.git
                        """)
                .write("vendor/readme.txt", "what others made\n");
        harbour.git("add", "-A");
        for (String name : Set.of("charts", "elsewhere", "unknown")) {
            harbour.git("update-index", "--add", "--cacheinfo", "160000," + wanted + ",vendor/" + name);
        }
        harbour.git("commit", "-q", "-m", "With submodules");
        harbour.write("later.txt", "later\n");
        harbour.git("add", "later.txt");
        harbour.git("commit", "-q", "-m", "Later");
        service.add("sea-charts", charts.path());
        service.add("harbour", harbour.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static JsonNode entry(String name, String rev) {
        for (JsonNode entry : service.get("/api/v1/repositories/harbour/tree", "path", "vendor", "rev", rev)
                .json()
                .path("entries")) {
            if (entry.path("name").asString().equals(name)) {
                return entry.path("submodule");
            }
        }
        throw new AssertionError(name);
    }

    @Test
    void leadToTheRegisteredRepositoryAtTheCommitThatTheyName() {
        for (String rev : Set.of("", "main~1")) {
            JsonNode charts = entry("charts", rev.isEmpty() ? "" : earlier());
            assertThat(charts.path("repository").asString()).isEqualTo("sea-charts");
            assertThat(charts.path("commit").asString()).isEqualTo(wanted);
        }
        JsonNode tree = service.get("/api/v1/repositories/sea-charts/tree", "rev", wanted)
                .json();
        assertThat(tree.path("entries")).hasSize(1);
    }

    private static String earlier() {
        return service.get("/api/v1/search/commits", "q", "submodules", "repo", "harbour")
                .json()
                .path("commits")
                .path(0)
                .path("id")
                .asString();
    }

    @Test
    void sayTheirLocationWhereItIsNotRegistered() {
        JsonNode elsewhere = entry("elsewhere", "");
        assertThat(elsewhere.path("repository").isNull()).isTrue();
        assertThat(elsewhere.path("location").asString()).isEqualTo("https://elsewhere.example/tide.git");
        assertThat(entry("unknown", "").path("location").isNull()).isTrue();
    }

    @Test
    void areNoneOfFilesAndFolders() {
        assertThat(entry("readme.txt", "").isNull()).isTrue();
    }

    @Test
    void openedLikeAFileSayTheSame() {
        JsonNode file = service.get("/api/v1/repositories/harbour/file", "path", "vendor/charts")
                .json();
        assertThat(file.path("submodule").path("repository").asString()).isEqualTo("sea-charts");
    }

    @Test
    void leadToNothingThatTheCallerMayNotSee() {
        service.hide(Set.of("sea-charts"));
        try {
            assertThat(entry("charts", "").path("repository").isNull()).isTrue();
        } finally {
            service.hide(Set.of());
        }
    }
}
