package dev.oddbeacon.server.processes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.ProcessRecords;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecords;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Several processes on one index: one serves, others index. */
class DutiesTest {
    private static final String SERVING = "--oddbeacon.duties=serving";
    private static final String INDEXING = "--oddbeacon.duties=indexing";

    @TempDir
    private Path folder;

    private final List<String> database = Database.shared().create();
    private Path data;

    @BeforeEach
    void folders() {
        data = folder.resolve("data");
    }

    private TestRepository repository(String name, String text) throws IOException {
        return TestRepository.create(folder.resolve("repositories").resolve(name))
                .write("log.txt", text)
                .commit("First of " + name);
    }

    private static int hits(TestService service, String text) {
        JsonNode answer = service.get("/api/v1/search/lines", "q", text, "limit", "1", "counts", "exact")
                .json();
        return answer.path("counts").path("hits").asInt();
    }

    private static String state(TestService service, String name) {
        return service.get("/api/v1/repositories/" + name).json().path("state").asString();
    }

    private static TestService register(TestService service, String name, Path location) {
        assertThat(service.post(
                                "/api/v1/repositories",
                                "application/json",
                                "{\"name\":\"" + name + "\",\"location\":\"" + location + "\"}")
                        .status())
                .isEqualTo(201);
        return service;
    }

    @Test
    void whatOneThatStopsDidNotComeToPublishIsNotLeftBehind() throws IOException {
        TestRepository repository = repository("tide", "eider one\n");
        Path left;
        try (TestService service = TestService.start(database, data)) {
            register(service, "tide", repository.path()).awaitReady("tide");
            left = service.bean(Processes.class).newFiles().next("segment");
            Files.writeString(left, "another was recorded in its place");
            assertThat(service.recordedFiles()).isNotEmpty();
        }
        assertThat(left).doesNotExist();
        try (TestService service = TestService.start(database, data)) {
            assertThat(hits(service, "eider")).isEqualTo(1);
        }
    }

    @Test
    void whatIsRegisteredWaitsForAProcessThatIndexes() throws IOException {
        TestRepository repository = repository("tide", "eider one\n");
        try (TestService serving = TestService.start(database, data, SERVING)) {
            register(serving, "tide", repository.path());
            assertThat(state(serving, "tide")).isEqualTo("waiting");
            try (TestService _ = TestService.start(database, data, INDEXING)) {
                serving.awaitReady("tide");
                assertThat(hits(serving, "eider")).isEqualTo(1);
                assertThat(serving.get("/api/v1/search/commits", "q", "First of tide")
                                .json()
                                .path("counts")
                                .path("commits")
                                .asInt())
                        .isEqualTo(1);
                assertThat(serving.get("/api/v1/repositories/tide")
                                .json()
                                .path("following")
                                .path("checked")
                                .asString())
                        .as("when it was fetched, which another process did")
                        .isNotEmpty();
            }
            repository.write("log.txt", "eider one\neider two\n").commit("Second");
            serving.post("/api/v1/repositories/tide/refresh", "application/json", "");
            assertThat(state(serving, "tide")).isEqualTo("waiting");
            assertThat(hits(serving, "eider"))
                    .as("nobody indexes, and searching goes on")
                    .isEqualTo(1);
            try (TestService _ = TestService.start(database, data, INDEXING)) {
                serving.awaitReady("tide");
                assertThat(hits(serving, "eider")).isEqualTo(2);
                assertThat(serving.delete("/api/v1/repositories/tide").status()).isEqualTo(204);
                Waiting.until(() -> files("mirrors").isEmpty());
            }
        }
    }

    @Test
    void onlyOneServes() {
        try (TestService _ = TestService.start(database, data)) {
            assertThatThrownBy(() -> TestService.start(database, data))
                    .rootCause()
                    .hasMessageContaining("serves these records already")
                    .hasMessageContaining("--duty indexing");
        }
    }

    /** Two that index, and one of them is taken for dead now and then; repositories change, come and go meanwhile. */
    @Test
    void whateverTheyDoAtTheSameTimeTheAnswersAreThoseOfAScan() throws IOException {
        Random random = new Random(20261129);
        List<TestRepository> repositories = new ArrayList<>();
        try (TestService serving = TestService.start(database, data, SERVING);
                TestService first = TestService.start(database, data, INDEXING);
                TestService second = TestService.start(database, data, INDEXING)) {
            for (int number = 0; number < 12; number++) {
                TestRepository repository = repository("r" + number, TestRepository.birds(random));
                repositories.add(repository);
                register(serving, "r" + number, repository.path());
            }
            for (int round = 0; round < 40; round++) {
                int number = random.nextInt(repositories.size());
                repositories
                        .get(number)
                        .write("log" + random.nextInt(3) + ".txt", TestRepository.birds(random))
                        .commit("Round " + round);
                serving.post("/api/v1/repositories/r" + number + "/refresh", "application/json", "");
                if (round % 8 == 3) { // as the other does if it sees no beats
                    TestService taken = random.nextBoolean() ? first : second;
                    taken.bean(ProcessRecords.class)
                            .remove(taken.bean(Processes.class).id());
                }
                if (round % 10 == 7) {
                    serving.post("/api/v1/repositories/r" + number + "/purge", "application/json", "");
                }
            }
            for (int number = 0; number < repositories.size(); number++) {
                serving.awaitReady("r" + number);
            }
            for (String word : TestRepository.BIRDS) {
                int expected = 0;
                for (TestRepository repository : repositories) {
                    expected += repository.linesWith(word);
                }
                assertThat(hits(serving, word)).as(word).isEqualTo(expected);
            }
            Waiting.until(() -> strays(serving).isEmpty());
            assertThat(serving.get("/api/v1/repositories").json())
                    .allMatch(repository -> repository.path("problem").isNull()
                            || repository.path("problem").isMissingNode());
        }
    }

    private List<String> files(String below) {
        try (Stream<Path> files = Files.list(data.resolve(below))) {
            return files.map(file -> file.getFileName().toString()).toList();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Files of the index that no record names. */
    private Set<String> strays(TestService service) {
        Set<String> strays = new HashSet<>(files("index"));
        strays.removeAll(service.bean(SegmentRecords.class).files());
        strays.removeAll(service.bean(HistoryRecords.class).files());
        strays.removeAll(service.bean(RepositoryRecords.class).snapshotFiles());
        return strays;
    }
}
