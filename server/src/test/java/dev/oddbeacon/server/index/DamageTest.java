package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.catalogue.Catalogue;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What kills, failing disks and other programs do to the data folder is found, named and mended. */
class DamageTest {
    @TempDir
    Path folder;

    private List<String> database;
    private Path data;
    private TestRepository repository;

    @BeforeEach
    void lay() throws IOException {
        database = Database.shared().create();
        data = folder.resolve("data");
        repository = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "low tide\n")
                .write("b.txt", "high tide\n".repeat(20_000))
                .commit("Gauge");
    }

    private TestService start() {
        return TestService.start(database, data);
    }

    private static int hits(TestService service, String text) {
        TestService.Answer answer = service.get("/api/v1/search/lines", "q", text, "counts", "exact");
        return answer.status() == 200
                ? answer.json().path("counts").path("hits").asInt()
                : -answer.status();
    }

    private Path file(String ending) throws IOException {
        try (Stream<Path> files = Files.list(data.resolve("index"))) {
            return files.filter(file -> file.toString().endsWith(ending))
                    .findFirst()
                    .orElseThrow();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {".segment", ".snapshot", ".history"})
    void aLiveFileThatIsCutIsFoundAndRebuiltAndEndsNothing(String ending) throws IOException {
        try (TestService service = start().add("tide", repository.path())) {
            Path file = file(ending);
            try (RandomAccessFile open = new RandomAccessFile(file.toFile(), "rw")) {
                open.setLength(Math.max(100, open.length() / 3));
            }
            TestService.Answer check = service.post("/api/v1/status/verify", "application/json", "");
            assertThat(check.status()).as(check.body()).isEqualTo(200);
            assertThat(check.json().path("damaged").path(0).asString())
                    .isEqualTo(file.getFileName().toString());
            service.awaitReady("tide");
            Waiting.until(() -> hits(service, "tide") == 20_001);
        }
    }

    @Test
    void aLiveFileThatIsDeletedIsFoundByItsName() throws IOException {
        try (TestService service = start().add("tide", repository.path())) {
            Path file = file(".segment");
            Files.delete(file);
            TestService.Answer check = service.post("/api/v1/status/verify", "application/json", "");
            assertThat(check.json().path("damaged").path(0).asString())
                    .isEqualTo(file.getFileName().toString());
            Waiting.until(() -> hits(service, "tide") == 20_001);
        }
    }

    @Test
    void aSearchThatReadsBehindTheEndOfACutFileNamesIt() throws IOException {
        try (TestService service = start().add("tide", repository.path())) {
            Path file = file(".segment");
            try (RandomAccessFile open = new RandomAccessFile(file.toFile(), "rw")) {
                open.setLength(4_096);
            }
            TestService.Answer answer = service.get("/api/v1/search/lines", "q", "tide", "counts", "exact");
            assertThat(answer.status()).isIn(200, 503);
            if (answer.status() == 503) {
                assertThat(answer.detail()).contains(file.getFileName().toString());
            }
            service.post("/api/v1/status/verify", "application/json", "");
            Waiting.until(() -> hits(service, "tide") == 20_001);
        }
    }

    @Test
    void theSnapshotThatIsDamagedCostsNoFileOfThePast() throws IOException {
        try (TestService service = start().add("tide", repository.path())) {
            assertThat(hits(service, "low tide")).isEqualTo(1);
        }
        Path past = file(".history");
        Files.writeString(file(".snapshot"), "nonsense");
        try (TestService service = start()) {
            service.awaitReady("tide");
            assertThat(past).exists();
            assertThat(hits(service, "low tide")).isEqualTo(1);
        }
    }

    private Path mirror(TestService service) {
        return data.resolve("mirrors/"
                + service.bean(Catalogue.class).find("tide").orElseThrow().id() + ".git");
    }

    private void refreshed(TestService service, String text) throws IOException {
        repository.write("c.txt", text + "\n").commit("More");
        service.post("/api/v1/repositories/tide/refresh", "application/json", "");
        Waiting.until(() -> hits(service, text) == 1);
        service.awaitReady("tide");
    }

    @Test
    void locksOfDeadProcessesInAMirrorHoldUpNothing() throws IOException {
        try (TestService service = start().add("tide", repository.path())) {
            Path mirror = mirror(service);
            for (String lock : List.of("refs/heads/main.lock", "packed-refs.lock", "HEAD.lock", "config.lock")) {
                Files.writeString(mirror.resolve(lock), "");
            }
            Files.createDirectories(mirror.resolve("objects/pack"));
            Files.writeString(mirror.resolve("objects/pack/tmp_pack_x"), "half");
            refreshed(service, "neap");
            assertThat(mirror.resolve("objects/pack/tmp_pack_x")).doesNotExist();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"refs/heads/main", "config", "HEAD", "objects"})
    void aMirrorThatIsDamagedIsMadeAnew(String part) throws IOException {
        try (TestService service = start().add("tide", repository.path())) {
            Path damaged = mirror(service).resolve(part);
            if (Files.isDirectory(damaged)) {
                try (Stream<Path> files = Files.walk(damaged)) {
                    for (Path file : files.filter(Files::isRegularFile).toList()) {
                        file.toFile().setWritable(true);
                        Files.write(file, new byte[(int) Files.size(file)]);
                    }
                }
            } else {
                Files.write(damaged, new byte[(int) Files.size(damaged)]);
            }
            refreshed(service, "spring");
        }
    }

    @Test
    void aRepositoryIsReadyAfterwardsHoweverOftenItIsRefreshed() throws Exception {
        try (TestService service = start().add("tide", repository.path())) {
            Random random = new Random(3);
            for (int round = 0; round < 15; round++) {
                repository.write("r.txt", "round " + round + "\n").commit("Round " + round);
                List<Thread> callers = new ArrayList<>();
                for (int i = 0; i < 3; i++) {
                    callers.add(Thread.ofVirtual()
                            .start(() -> service.post("/api/v1/repositories/tide/refresh", "application/json", "")));
                }
                Thread.sleep(random.nextInt(40));
                for (Thread caller : callers) {
                    caller.join();
                }
            }
            service.awaitReady("tide");
            Waiting.until(() -> hits(service, "round 14") == 1);
            service.awaitReady("tide");
        }
    }

    @Test
    void whatIsRemovedWhileItIsIndexedGoesForGood() throws Exception {
        for (int i = 0; i < 400; i++) {
            repository.write("many/f" + i + ".txt", ("line " + i + "\n").repeat(300));
        }
        repository.commit("Many");
        try (TestService service = start()) {
            Random random = new Random(4);
            for (int round = 0; round < 8; round++) {
                String name = "t" + round;
                TestService.Answer added = service.post(
                        "/api/v1/repositories",
                        "application/json",
                        "{\"name\":\"" + name + "\",\"location\":\"" + repository.path() + "\"}");
                assertThat(added.status()).isEqualTo(201);
                Thread.sleep(random.nextInt(300));
                TestService.Answer removed = service.delete("/api/v1/repositories/" + name);
                assertThat(removed.status()).as(removed.body()).isEqualTo(204);
            }
            Waiting.until(() -> {
                try (Stream<Path> mirrors = Files.list(data.resolve("mirrors"))) {
                    return mirrors.findAny().isEmpty();
                } catch (IOException e) {
                    return false;
                }
            });
            assertThat(service.get("/api/v1/repositories").json().size()).isZero();
        }
    }

    @Test
    void aStopLosesNoRefreshThatWasAccepted() throws Exception {
        try (TestService service = start().add("tide", repository.path())) {
            assertThat(hits(service, "low tide")).isEqualTo(1);
        }
        for (int round = 0; round < 4; round++) {
            String text = "stop" + round;
            repository.write("s.txt", text + "\n").commit(text);
            try (TestService service = start()) {
                assertThat(service.post("/api/v1/repositories/tide/refresh", "application/json", "")
                                .status())
                        .isEqualTo(202);
                Thread.sleep(round * 15L);
            }
            try (TestService service = start()) {
                Waiting.until(() -> hits(service, text) == 1);
                service.awaitReady("tide");
                assertThat(service.get("/api/v1/repositories/tide")
                                .json()
                                .path("problem")
                                .isNull())
                        .isTrue();
            }
        }
    }

    @Test
    void mirrorsArePackedNowAndThenAndGrowNoMoreThanTheyMust() throws Exception {
        try (TestService service = start().add("tide", repository.path())) {
            for (int push = 0; push < 40; push++) {
                for (int i = 0; i < 40; i++) {
                    repository.write("p" + i + ".txt", "push " + push + " of " + i + "\n");
                }
                repository.commit("Push " + push);
                if (push % 2 == 1) {
                    service.post("/api/v1/repositories/tide/refresh", "application/json", "");
                    service.awaitReady("tide");
                }
            }
            Waiting.until(() -> hits(service, "push 39") == 40);
            Path objects = mirror(service).resolve("objects");
            try (Stream<Path> files = Files.walk(objects)) { // of which there would be 1,700 or more
                assertThat(files.filter(Files::isRegularFile).count()).isLessThan(1_500);
            }
        }
    }
}
