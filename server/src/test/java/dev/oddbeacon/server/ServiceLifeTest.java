package dev.oddbeacon.server;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.index.CurrentView;
import dev.oddbeacon.server.index.Publisher;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.records.RepositoryRecords;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;

/** The service over its life: restarts, changes from many sides, a database that stands still. */
class ServiceLifeTest {
    private static final long ENDED = 0; // the number of no process

    @TempDir
    Path folder;

    private TestRepository repository;

    @BeforeEach
    void commitSomething() throws IOException {
        repository = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "tern one\ntern two\n")
                .write("b.txt", "tern three\n")
                .commit("Birds");
    }

    @Test
    void aCursorSurvivesAChangeOfTheIndexButNoRestart() throws IOException {
        List<String> database = Database.shared().create();
        String next;
        try (TestService service =
                TestService.start(database, folder.resolve("data")).add("tide", repository.path())) {
            next = service.get("/api/v1/search/lines", "q", "tern", "limit", "1")
                    .json()
                    .path("next")
                    .asString();
            repository.write("0.txt", "tern zero\n").commit("More birds");
            service.post("/api/v1/repositories/tide/refresh", "application/json", "");
            service.awaitReady("tide");
            TestService.Answer second = service.get("/api/v1/search/lines", "q", "tern", "limit", "1", "cursor", next);
            assertThat(second.json()
                            .path("files")
                            .path(0)
                            .path("excerpts")
                            .path(0)
                            .path("lines")
                            .toString())
                    .as("of the index as it was")
                    .contains("tern two");
            assertThat(service.get("/api/v1/search/files", "q", "a", "cursor", next)
                            .status())
                    .as("of another subject")
                    .isEqualTo(400);
        }
        try (TestService again = TestService.start(database, folder.resolve("data"))) {
            TestService.Answer late = again.get("/api/v1/search/lines", "q", "tern", "limit", "1", "cursor", next);
            assertThat(late.status()).isEqualTo(410);
            assertThat(late.detail()).contains("Search again from the start");
            assertThat(again.get("/api/v1/search/lines", "q", "tern")
                            .json()
                            .path("counts")
                            .path("hits")
                            .asInt())
                    .isEqualTo(4);
        }
    }

    @Test
    void searchingGoesOnWhileTheDatabaseStandsStill() throws InterruptedException {
        try (Database database = Database.start();
                TestService service = TestService.start(database.create(), folder.resolve("data"))
                        .add("tide", repository.path())) {
            database.freeze();
            Thread.sleep(700); // for longer no connection is used without being tried
            ExecutorService callers = Executors.newVirtualThreadPerTaskExecutor();
            // changes hang or fail, and must hold up nobody who searches
            Future<TestService.Answer> change =
                    callers.submit(() -> service.post("/api/v1/repositories/tide/refresh", "application/json", ""));
            for (int i = 0; i < 20; i++) {
                long start = System.nanoTime();
                assertThat(service.get("/api/v1/search/lines", "q", "tern", "limit", "1", "counts", "exact")
                                .json()
                                .path("counts")
                                .path("hits")
                                .asInt())
                        .isEqualTo(3);
                assertThat(service.get("/api/v1/repositories").json().size()).isEqualTo(1);
                assertThat(service.get("/api/v1/search/commits", "q", "birds")
                                .json()
                                .path("counts")
                                .path("commits")
                                .asInt())
                        .isEqualTo(1);
                assertThat(Duration.ofNanos(System.nanoTime() - start))
                        .as("three answers")
                        .isLessThan(Duration.ofSeconds(2));
            }
            assertThat(awaited(change).status())
                    .as("a change, of records that do not answer")
                    .isEqualTo(503);
            database.thaw();
            assertThat(service.post("/api/v1/repositories/tide/refresh", "application/json", "")
                            .status())
                    .isEqualTo(202);
            callers.close();
        }
    }

    private static <T> T awaited(Future<T> future) {
        try {
            return future.get(60, TimeUnit.SECONDS);
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void viewsAreOpenForWhoeverHoldsThemHoweverOftenTheyArePublished() throws Exception {
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("tide", repository.path())) {
            CurrentView current = service.bean(CurrentView.class);
            Publisher publisher = service.bean(Publisher.class);
            AtomicBoolean ends = new AtomicBoolean();
            List<Future<Integer>> readers = new ArrayList<>();
            try (ExecutorService threads = Executors.newFixedThreadPool(12)) {
                for (int reader = 0; reader < 8; reader++) {
                    Random random = new Random(reader);
                    readers.add(threads.submit(() -> {
                        int read = 0;
                        long newest = 0;
                        while (!ends.get()) {
                            View view = current.acquire();
                            try {
                                assertThat(view.number()).as("nobody goes back").isGreaterThanOrEqualTo(newest);
                                newest = view.number();
                                Thread.sleep(random.nextInt(3));
                                assertThat(view.snapshot(0).path(0))
                                        .isEqualTo("a.txt"); // of mapped memory: closed, it would fail
                                assertThat(view.segments().getFirst().blobCount())
                                        .isPositive();
                                read++;
                            } finally {
                                view.release();
                            }
                        }
                        return read;
                    }));
                }
                List<Future<?>> publishers = new ArrayList<>();
                for (int i = 0; i < 4; i++) {
                    publishers.add(threads.submit(() -> {
                        for (int k = 0; k < 30; k++) {
                            publisher.publish();
                        }
                        return null;
                    }));
                }
                for (Future<?> each : publishers) {
                    each.get(60, TimeUnit.SECONDS);
                }
                ends.set(true);
                for (Future<Integer> reader : readers) {
                    assertThat(reader.get(10, TimeUnit.SECONDS)).isPositive();
                }
            }
            assertThat(service.get("/api/v1/search/lines", "q", "tern")
                            .json()
                            .path("counts")
                            .path("hits")
                            .asInt())
                    .isEqualTo(3);
        }
    }

    @Test
    void theCatalogueEndsAsTheRecordsDoWhoeverChangesThem() throws Exception {
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("tide", repository.path())) {
            RepositoryChanges changes = service.bean(RepositoryChanges.class);
            Catalogue catalogue = service.bean(Catalogue.class);
            long id = catalogue.find("tide").orElseThrow().id();
            try (ExecutorService threads = Executors.newFixedThreadPool(6)) {
                for (int i = 0; i < 60; i++) {
                    String problem = "problem " + i;
                    threads.submit(
                            () -> changes.change(id, record -> record.state(State.FAILED, Optional.of(problem))));
                }
            }
            String recorded = service.bean(TransactionTemplate.class)
                    .execute(_ -> service.bean(RepositoryRecords.class)
                            .findById(id)
                            .orElseThrow()
                            .problem()
                            .orElseThrow());
            Repository known = catalogue.find("tide").orElseThrow();
            assertThat(known.problem()).hasValue(recorded);
            assertThat(service.get("/api/v1/repositories/tide")
                            .json()
                            .path("state")
                            .asString())
                    .isEqualTo("failed");
        }
    }

    @Test
    void aJobThatAStopInterruptedIsBegunAgainAtTheNextStart() throws IOException {
        List<String> database = Database.shared().create();
        try (TestService service =
                TestService.start(database, folder.resolve("data")).add("tide", repository.path())) {
            long id = service.bean(Catalogue.class).find("tide").orElseThrow().id();
            repository.write("c.txt", "tern four\n").commit("One more");
            service.bean(TransactionTemplate.class)
                    .executeWithoutResult(
                            _ -> { // as a kill leaves it
                                JobRecords jobs = service.bean(JobRecords.class);
                                jobs.begin(
                                        jobs.save(new JobRecord(id, "", false)).id(), ENDED);
                                service.bean(RepositoryRecords.class)
                                        .findById(id)
                                        .orElseThrow()
                                        .state(State.INDEXING, Optional.empty());
                            });
        }
        try (TestService again = TestService.start(database, folder.resolve("data"))) {
            again.awaitReady("tide");
            assertThat(again.get("/api/v1/search/lines", "q", "tern four")
                            .json()
                            .path("counts")
                            .path("hits")
                            .asInt())
                    .isEqualTo(1);
            assertThat(again.bean(JobRecords.class).findAll()).isEmpty();
        }
    }

    @Test
    void aStopInOrderLeavesNoFileThatNobodyNames() throws IOException {
        Set<String> recorded = new HashSet<>();
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))) {
            service.add("tide", repository.path());
            for (int day = 1; day <= 8; day++) {
                repository.write("c.txt", "tern " + day + "\n").commit("Day " + day);
                service.post("/api/v1/repositories/tide/refresh", "application/json", "");
                service.awaitReady("tide");
                service.get("/api/v1/search/lines", "q", "tern", "limit", "1");
                assertThat(service.get("/api/v1/search/lines", "q", "tern", "limit", "1")
                                .json()
                                .path("next")
                                .asString())
                        .as("a cursor, which keeps the view")
                        .isNotEmpty();
            }
            recorded.addAll(service.recordedFiles());
        }
        try (Stream<Path> files = Files.list(folder.resolve("data/index"))) {
            assertThat(files.map(file -> file.getFileName().toString())).containsExactlyInAnyOrderElementsOf(recorded);
        }
    }

    @Test
    void aJobThatWasBegunWhileTheRecordsWentAwayIsBegunAgain() throws IOException {
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))) {
            service.add("tide", repository.path());
            long id = service.bean(Catalogue.class).find("tide").orElseThrow().id();
            repository.write("c.txt", "tern four\n").commit("One more");
            service.bean(TransactionTemplate.class)
                    .executeWithoutResult(
                            _ -> { // as a commit leaves it that nobody hears of
                                JobRecords jobs = service.bean(JobRecords.class);
                                jobs.begin(
                                        jobs.save(new JobRecord(id, "", false)).id(),
                                        service.bean(Processes.class).id());
                            });
            Waiting.until(() -> service.bean(JobRecords.class).count() == 0);
            service.awaitReady("tide");
            assertThat(service.get("/api/v1/search/lines", "q", "tern four")
                            .json()
                            .path("counts")
                            .path("hits")
                            .asInt())
                    .isEqualTo(1);
        }
    }

    @Test
    void aRepositoryThatCannotBeFetchedSaysWhyAndHoldsUpNobody() {
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))) {
            service.post(
                    "/api/v1/repositories",
                    "application/json",
                    "{\"name\":\"gone\",\"location\":\"" + folder.resolve("nowhere") + "\"}");
            service.add("tide", repository.path());
            long deadline = System.nanoTime() + Duration.ofSeconds(30).toNanos();
            JsonNode gone = service.get("/api/v1/repositories/gone").json();
            while (!gone.path("state").asString().equals("failed")) {
                assertThat(System.nanoTime()).as(gone.toString()).isLessThan(deadline);
                gone = service.get("/api/v1/repositories/gone").json();
            }
            assertThat(gone.path("problem").asString()).contains("nowhere");
            assertThat(service.get("/api/v1/search/lines", "q", "tern", "repo", "tide")
                            .json()
                            .path("index")
                            .path("complete")
                            .asBoolean())
                    .isTrue();
        }
    }

    @Test
    void removingTakesEverythingOfARepositoryWithIt() {
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("tide", repository.path())) {
            assertThat(service.delete("/api/v1/repositories/tide").status()).isEqualTo(204);
            assertThat(service.get("/api/v1/repositories").json().size()).isZero();
            assertThat(service.get("/api/v1/search/lines", "q", "tern")
                            .json()
                            .path("counts")
                            .path("hits")
                            .asInt())
                    .isZero();
            assertThat(folder.resolve("data/index")).isEmptyDirectory();
            assertThat(folder.resolve("data/mirrors")).isEmptyDirectory();
        }
    }
}
