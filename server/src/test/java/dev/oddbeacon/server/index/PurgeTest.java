package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.FilesBelow;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import org.eclipse.jgit.util.FileUtils;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A text that should never have been pushed, after its history was rewritten. */
class PurgeTest {
    private static final String SECRET = "harbourmaster-password-seagull";

    @TempDir
    private Path folder;

    private TestService service;
    private TestRepository fares;
    private String guilty;

    @BeforeEach
    void start() throws IOException {
        service = TestService.start(Database.shared().create(), folder.resolve("data"));
        fares = TestRepository.create(folder.resolve("fares"))
                .write("fares.txt", "adults 12\n")
                .commit("Fares");
        String innocent = fares.git("rev-parse", "HEAD").strip();
        fares.write("config.txt", "login " + SECRET + "\n").commit("Log in by itself");
        guilty = fares.git("rev-parse", "HEAD").strip();
        Files.delete(fares.path().resolve("config.txt"));
        fares.git("add", "-A");
        fares.write("fares.txt", "adults 13\n").commit("Take it out again");
        service.add("fares", fares.path());
        assertThat(found("fares")).as("a word that only the past has").isEqualTo(1);
        fares.git("reset", "-q", "--hard", innocent);
        fares.write("fares.txt", "adults 14\n").commit("As if nothing had been");
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private int found(String repository) {
        return service.get(
                        "/api/v1/search/commits",
                        "q",
                        "adds(" + SECRET + ")",
                        "reading",
                        "expression",
                        "repo",
                        repository)
                .json()
                .path("counts")
                .path("commits")
                .asInt(-1);
    }

    private int lines(String text) {
        return service.get("/api/v1/search/lines", "q", text)
                .json()
                .path("counts")
                .path("hits")
                .asInt();
    }

    private void purge(String name) {
        assertThat(service.post("/api/v1/repositories/" + name + "/purge", "application/json", "")
                        .status())
                .isEqualTo(202);
        service.awaitReady(name);
    }

    private String mirror() throws IOException {
        try (Stream<Path> mirrors = Files.list(folder.resolve("data/mirrors"))) {
            return mirrors.findFirst().orElseThrow().toString();
        }
    }

    @Test
    void isInNeitherMirrorNorPastNorIndex() throws IOException {
        purge("fares");
        assertThat(found("fares")).isZero();
        assertThat(service.get("/api/v1/repositories/fares/commits/" + guilty).status())
                .isEqualTo(404);
        assertThat(fares.git("--git-dir=" + mirror(), "cat-file", "--batch-all-objects", "--batch-check"))
                .as("objects of the mirror")
                .doesNotContain(guilty);
        assertThat(lines("adults")).isEqualTo(1);
    }

    @Test
    void isInNoFileOfTheIndexWhenItStoodThereAsItIs() throws IOException {
        fares.write("config.txt", "login " + SECRET + "\n").commit("Again");
        service.post("/api/v1/repositories/fares/refresh", "application/json", "");
        Waiting.until(() -> lines(SECRET) == 1);
        service.awaitReady("fares");
        service.get("/api/v1/search/lines", "q", "login", "limit", "1"); // a cursor keeps a view
        assertThat(FilesBelow.holding(folder.resolve("data/index"), SECRET))
                .as("before")
                .isNotEmpty();
        fares.git("reset", "-q", "--hard", "HEAD~1");
        purge("fares");
        Waiting.until(
                () -> FilesBelow.holding(folder.resolve("data/index"), SECRET).isEmpty());
    }

    @Test
    void staysWhereAnotherRepositoryHasIt() throws IOException {
        TestRepository copy = TestRepository.create(folder.resolve("copy"))
                .write("notes.txt", "login " + SECRET + "\n")
                .commit("A copy");
        service.add("copy", copy.path());
        purge("fares");
        assertThat(lines(SECRET)).isEqualTo(1);
        assertThat(found("copy")).isEqualTo(1);
    }

    @Test
    void staysIfTheRepositoryCannotBeFetchedAndThatIsSaid() throws IOException {
        FileUtils.delete(fares.path().toFile(), FileUtils.RECURSIVE);
        service.post("/api/v1/repositories/fares/purge", "application/json", "");
        Waiting.until(() -> service.get("/api/v1/repositories/fares")
                .json()
                .path("state")
                .asString()
                .equals("failed"));
        assertThat(service.get("/api/v1/repositories/fares")
                        .json()
                        .path("problem")
                        .asString())
                .startsWith("Nothing was purged. ");
        assertThat(found("fares")).isEqualTo(1);
        try (Stream<Path> mirrors = Files.list(folder.resolve("data/mirrors"))) {
            assertThat(mirrors).hasSize(1);
        }
    }

    @Test
    void whatStaysCanBeReadAllTheWhile() throws Exception {
        fares.git("reset", "-q", "--hard", guilty); // nothing is rewritten
        service.post("/api/v1/repositories/fares/refresh", "application/json", "");
        service.awaitReady("fares");
        AtomicBoolean purging = new AtomicBoolean(true);
        try (ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<Set<Integer>>> readers = new ArrayList<>();
            for (String path : List.of("commits/" + guilty, "raw?path=config.txt", "tree?rev=" + guilty)) {
                readers.add(threads.submit(() -> {
                    Set<Integer> statuses = new TreeSet<>();
                    while (purging.get()) {
                        statuses.add(service.get("/api/v1/repositories/fares/" + path)
                                .status());
                    }
                    return statuses;
                }));
            }
            for (int i = 0; i < 5; i++) {
                purge("fares");
            }
            purging.set(false);
            for (Future<Set<Integer>> reader : readers) {
                assertThat(reader.get()).containsExactly(200);
            }
        }
    }

    @Test
    void whatARepositoryTakesIsTold() {
        assertThat(service.get("/api/v1/repositories/fares")
                        .json()
                        .path("disk")
                        .path("mirrorBytes")
                        .asLong())
                .isPositive();
        assertThat(service.get("/api/v1/repositories/fares")
                        .json()
                        .path("disk")
                        .path("pastBytes")
                        .asLong())
                .isPositive();
    }
}
