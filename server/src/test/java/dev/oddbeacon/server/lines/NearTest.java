package dev.oddbeacon.server.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The parameter near, in searches for lines and for files. */
class NearTest {
    @TempDir
    private static Path folder;

    private static TestTeam team;
    private static Requests mate;

    @BeforeAll
    static void start() throws IOException {
        team = TestTeam.start(folder, "data");
        mate = team.person("mate", "reader", "deck");
        team.add(
                "gauges",
                TestRepository.create(folder.resolve("gauges"))
                        .write("a/tide.txt", "tide\n")
                        .write("b/c/tide.txt", "tide\n")
                        .write("b/other.txt", "tide\n")
                        .commit("All")
                        .path(),
                "team:deck");
        team.add(
                "hidden",
                TestRepository.create(folder.resolve("hidden"))
                        .write("tide.txt", "tide\n")
                        .commit("All")
                        .path());
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    private static List<String> paths(Answer answer) {
        assertThat(answer.status()).isEqualTo(200);
        List<String> paths = new ArrayList<>();
        answer.json().path("files").forEach(file -> paths.add(file.path("path").asString()));
        return paths;
    }

    @ParameterizedTest
    @ValueSource(strings = {"lines", "files"})
    void putsFilesCloseToOneFirst(String subject) {
        String address = "/api/v1/search/" + subject;
        assertThat(paths(mate.get(address, "q", "t", "near", "gauges/b/new.txt")))
                .containsExactly("b/other.txt", "b/c/tide.txt", "a/tide.txt");
        assertThat(paths(mate.get(address, "q", "t", "near", "gauges/b/c/tide.txt", "order", "relevance")))
                .containsExactly("b/c/tide.txt", "b/other.txt", "a/tide.txt");
    }

    @ParameterizedTest
    @CsvSource({
        "lines, gauges/a.txt, path, 400, near orders files by how close they are",
        "files, gauges/a.txt, size, 400, near orders files by how close they are",
        "lines, gauges, relevance, 400, it must be a file as repository/path",
        "files, /gauges, relevance, 400, it must be a file as repository/path",
        "lines, gauges/, relevance, 400, it must be a file as repository/path",
        "lines, hidden/tide.txt, relevance, 404, There is no repository hidden",
        "files, no-such/tide.txt, relevance, 404, There is no repository no-such",
    })
    void isRefusedWhereItSaysNothing(String subject, String near, String order, int status, String why) {
        Answer answer = mate.get("/api/v1/search/" + subject, "q", "tide", "near", near, "order", order);
        assertThat(answer.status()).isEqualTo(status);
        assertThat(answer.detail()).contains(why);
    }

    @Test
    void isKeptWithASavedSearch() {
        assertThat(team.administrator()
                        .put(
                                "/api/v1/saved-searches/close",
                                "{\"subject\":\"lines\",\"parameters\":{\"q\":[\"tide\"],\"near\":[\"gauges/b/new.txt\"]}}")
                        .status())
                .isBetween(200, 201);
        assertThat(team.administrator()
                        .get("/api/v1/saved-searches/close/results")
                        .body())
                .contains("b/other.txt");
    }
}
