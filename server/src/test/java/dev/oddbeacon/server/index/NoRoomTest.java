package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What cannot be written, because there is no room or the records refuse it, leaves nothing behind. */
class NoRoomTest {
    @TempDir
    Path folder;

    private List<String> database;
    private TestRepository repository;

    @BeforeEach
    void lay() throws IOException {
        database = Database.shared().create();
        byte[] noise = new byte[6 << 20];
        new Random(5).nextBytes(noise);
        repository = TestRepository.create(folder.resolve("tide")).write("a.txt", "low tide\n");
        Files.write(repository.path().resolve("noise"), noise);
        repository.commit("Gauge");
    }

    private static void run(String... command) {
        try {
            Assumptions.assumeTrue(
                    new ProcessBuilder(command).inheritIO().start().waitFor() == 0,
                    "small disks are made by root only");
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static List<String> files(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile)
                    .map(file -> folder.relativize(file).toString())
                    .toList();
        }
    }

    private static void add(TestService service, String name, Path location) {
        TestService.Answer added = service.post(
                "/api/v1/repositories",
                "application/json",
                "{\"name\":\"" + name + "\",\"location\":\"" + location + "\"}");
        assertThat(added.status()).as(added.body()).isEqualTo(201);
    }

    private static String state(TestService service) {
        return service.get("/api/v1/repositories/tide").json().path("state").asString();
    }

    private static List<String> warnings(TestService service) {
        return service.get("/api/v1/status")
                .json()
                .path("warnings")
                .valueStream()
                .map(warning -> warning.asString())
                .toList();
    }

    @Test
    void aRepositoryThatFillsTheDiskWaitsAndIsIndexedWhenThereIsRoom() throws Exception {
        Path disk = Files.createDirectory(folder.resolve("disk"));
        run("mount", "-t", "tmpfs", "-o", "size=8m", "tmpfs", disk.toString());
        try {
            Path ballast = Files.write(disk.resolve("ballast"), new byte[5 << 20]);
            try (TestService service = TestService.start(database, disk.resolve("data"), "--oddbeacon.free-disk=0MB")) {
                add(service, "tide", repository.path());
                Waiting.until(
                        () -> warnings(service).stream().anyMatch(warning -> warning.contains("found the disk full")));
                Waiting.until(() -> state(service).equals("waiting"));
                assertThat(files(disk.resolve("data/mirrors"))).noneMatch(file -> file.contains("tmp_"));
                Files.delete(ballast);
                service.awaitReady("tide");
                assertThat(warnings(service)).isEmpty();
            }
        } finally {
            run("umount", "--lazy", disk.toString());
        }
    }

    @Test
    void thePauseDoublesUpToElevenMinutes() throws IOException {
        try (TestService service = TestService.start(database, folder.resolve("data"))) {
            Disk disk = service.bean(Disk.class);
            for (int seconds : new int[] {5, 10, 20, 40, 80, 160, 320, 640, 640}) {
                disk.wasFull();
                assertThat(warnings(service))
                        .singleElement()
                        .asString()
                        .containsPattern("tried again in (" + seconds + "|" + (seconds - 1) + ") s");
            }
            disk.hadRoom();
            assertThat(warnings(service)).isEmpty();
        }
    }

    @Test
    void nothingIsBegunBelowTheRoomThatIsKeptFree() throws IOException {
        try (TestService service =
                TestService.start(database, folder.resolve("data"), "--oddbeacon.free-disk=900000GB")) {
            add(service, "tide", repository.path());
            assertThat(warnings(service)).singleElement().asString().contains("MiB are kept free");
            assertThat(state(service)).isEqualTo("waiting");
            assertThat(service.get("/api/v1/search/lines", "q", "tide")
                            .json()
                            .path("index")
                            .path("complete")
                            .asBoolean())
                    .isFalse();
            assertThat(files(folder.resolve("data"))).noneMatch(file -> file.startsWith("mirrors"));
        }
    }

    @Test
    void whatTheRecordsRefuseIsAProblemOfTheRepositoryAndLeavesNoFile() throws IOException {
        try (TestService service = TestService.start(database, folder.resolve("data"))) {
            for (String table : List.of("segment", "history")) {
                Database.shared()
                        .execute(
                                database,
                                "create trigger refuse_" + table + " before insert on " + table
                                        + " for each row signal sqlstate '45000' set message_text = 'no more'");
            }
            add(service, "tide", repository.path());
            Waiting.until(() -> state(service).equals("failed"));
            assertThat(files(folder.resolve("data/index"))).isEmpty();

            Database.shared().execute(database, "drop trigger refuse_segment");
            service.post("/api/v1/repositories/tide/refresh", "application/json", "");
            Waiting.until(() -> !service.get("/api/v1/repositories/tide")
                    .json()
                    .path("history")
                    .path("problem")
                    .isNull());
            assertThat(files(folder.resolve("data/index"))).hasSize(2).noneMatch(file -> file.endsWith(".history"));
        }
    }
}
