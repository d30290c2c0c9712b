package dev.oddbeacon.server.following;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;

/** What is pushed becomes searchable by itself: because repositories are asked, and because somebody tells. */
class FollowingTest {
    private static final String REPOSITORIES = "/api/v1/repositories";
    private static final String SECRET = "low water at six in the morning";

    @TempDir
    static Path folder;

    private static TestService asking; // every second
    private static TestService told; // and never asks

    @BeforeAll
    static void start() {
        asking = TestService.start(
                Database.shared().create(),
                folder.resolve("asking"),
                "--oddbeacon.following.enabled=true",
                "--oddbeacon.following.shortest=1s",
                "--oddbeacon.following.longest=2s");
        told = TestService.start(
                Database.shared().create(), folder.resolve("told"), "--oddbeacon.hooks.secret=" + SECRET);
    }

    @AfterAll
    static void stop() {
        asking.close();
        told.close();
    }

    private static TestRepository register(TestService service, String name) throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve(name));
        repository.write("log.txt", "first " + name + "\n").commit("Start");
        service.with(Map.of())
                .post(
                        REPOSITORIES,
                        new NewRepository(name, null, repository.path().toString(), List.of(), List.of(), null));
        awaitHits(service, "first " + name, 1);
        return repository;
    }

    private static void awaitHits(TestService service, String text, int count) {
        Waiting.until(() -> service.get("/api/v1/search/lines", "q", text)
                        .json()
                        .path("counts")
                        .path("hits")
                        .asInt(-1)
                == count);
    }

    private static JsonNode info(TestService service, String name) {
        return service.get(REPOSITORIES + "/" + name).json();
    }

    private static JsonNode following(TestService service, String name) {
        return info(service, name).path("following");
    }

    @Test
    void whatIsPushedBecomesSearchable() throws IOException {
        TestRepository repository = register(asking, "ebb");
        repository.write("log.txt", "second ebb\n").commit("Go on");
        awaitHits(asking, "second ebb", 1);
        awaitHits(asking, "first ebb", 0);
        Waiting.until(() -> !following(asking, "ebb").path("behind").asBoolean(true));
        assertThat(following(asking, "ebb").path("problem").isNull()).isTrue();
    }

    @Test
    void aDefaultBranchThatMovesIsFollowed() throws IOException {
        TestRepository repository = register(asking, "flood");
        repository.git("checkout", "-q", "-b", "trunk");
        repository.write("log.txt", "on the trunk\n").commit("Move");
        awaitHits(asking, "on the trunk", 1);
        Waiting.until(() -> info(asking, "flood")
                .path("branches")
                .findValuesAsString("name")
                .equals(List.of("trunk")));
    }

    @Test
    void anOriginThatDoesNotAnswerIsToldAndRecoversByItself() throws IOException {
        TestRepository repository = register(asking, "slack");
        Path away = folder.resolve("slack-away");
        Files.move(repository.path(), away);
        Waiting.until(() -> !following(asking, "slack").path("problem").isNull());
        assertThat(following(asking, "slack").path("problem").asString()).contains("cannot be fetched from");
        assertThat(info(asking, "slack").path("state").asString())
                .as("what was indexed stays")
                .isEqualTo("ready");
        awaitHits(asking, "first slack", 1);
        Files.move(away, repository.path());
        repository.write("log.txt", "second slack\n").commit("Back again");
        awaitHits(asking, "second slack", 1);
        Waiting.until(() -> following(asking, "slack").path("problem").isNull());
    }

    @Test
    void aRepositoryThatFailedIsIndexedWhenItCanBe() throws IOException {
        Path later = folder.resolve("later");
        asking.with(Map.of())
                .post(REPOSITORIES, new NewRepository("later", null, later.toString(), List.of(), List.of(), null));
        Waiting.until(() -> info(asking, "later").path("state").asString().equals("failed"));
        TestRepository.create(later).write("log.txt", "it is here now\n").commit("Start");
        awaitHits(asking, "it is here now", 1);
        Waiting.until(() -> info(asking, "later").path("state").asString().equals("ready"));
    }

    @Test
    void aClockThatJumpsHoldsUpNothing() throws IOException {
        try (TestService service = TestService.start(
                Database.shared().create(),
                folder.resolve("jumping"),
                "--oddbeacon.following.enabled=true",
                "--oddbeacon.following.shortest=1s",
                "--oddbeacon.following.longest=1s")) {
            TestRepository repository = register(service, "buoy");
            Waiting.until(() -> info(service, "buoy").path("state").asString().equals("ready"));
            for (Duration ahead : List.of(Duration.ofDays(40), Duration.ZERO, Duration.ofDays(-400))) {
                service.setClock(ahead);
                String text = "seen at " + ahead;
                repository.write("log.txt", text + "\n").commit("At " + ahead);
                awaitHits(service, text, 1);
            }
        }
    }

    @Test
    void whatHasEndedTheServiceIsNotTriedAgainUntilItChanges() throws IOException {
        List<String> database = Database.shared().create();
        TestRepository repository;
        try (TestService first = TestService.start(database, folder.resolve("ended"))) {
            repository = register(first, "heavy");
            long id = first.bean(Catalogue.class).find("heavy").orElseThrow().id();
            Waiting.until(() -> info(first, "heavy").path("state").asString().equals("ready"));
            first.bean(TransactionTemplate.class)
                    .executeWithoutResult(
                            _ -> { // as three kills leave it
                                JobRecords jobs = first.bean(JobRecords.class);
                                long job =
                                        jobs.save(new JobRecord(id, "", false)).id();
                                for (long ended : List.of(0L, 0L, 0L)) {
                                    jobs.takeBack(job, ended);
                                    jobs.begin(job, ended);
                                }
                            });
        }
        try (TestService second = TestService.start(
                database,
                folder.resolve("ended"),
                "--oddbeacon.following.enabled=true",
                "--oddbeacon.following.shortest=1s",
                "--oddbeacon.following.longest=1s")) {
            String started = following(second, "heavy").path("checked").asString();
            Waiting.until(
                    () -> !following(second, "heavy").path("checked").asString().equals(started));
            assertThat(info(second, "heavy").path("problem").asString()).contains("The service ended 3 times");
            Waiting.until(() -> second.bean(JobRecords.class).count() == 0);
            assertThat(info(second, "heavy").path("state").asString()).isEqualTo("failed");
            repository.write("log.txt", "second heavy\n").commit("Lighter");
            awaitHits(second, "second heavy", 1);
            Waiting.until(() -> info(second, "heavy").path("state").asString().equals("ready"));
        }
    }

    private static Answer push(String message, String signature) {
        return told.with(Map.of("X-Hub-Signature", signature)).post("/api/v1/hooks/push", "application/json", message);
    }

    private static String signed(String message) {
        return new Signature(SECRET).of(message.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void aSignedMessageAboutAPushHasItFetchedAtOnce() throws IOException {
        TestRepository repository = register(told, "spring");
        repository.write("log.txt", "second spring\n").commit("Go on");
        String message = """
                {"ref": "refs/heads/main", "commits": [{"message": "Go on"}],
                 "project": {"urls": [{"kind": "clone", "href": "file://%s"}]}}""".formatted(repository.path());
        Answer answer = push(message, signed(message));
        assertThat(answer.status()).isEqualTo(202);
        assertThat(answer.body()).isEmpty();
        awaitHits(told, "second spring", 1);
    }

    @Test
    void whoCannotSignChangesNothing() throws IOException {
        TestRepository repository = register(told, "neap");
        Waiting.until(() -> info(told, "neap").path("state").asString().equals("ready"));
        String message = "{\"repository\": \"" + repository.path() + "\"}";
        for (String signature : List.of(
                "",
                "sha256=",
                "sha256=00",
                signed(message + " "),
                "sha1=" + signed(message).substring(7))) {
            assertThat(push(message, signature).status()).as(signature).isEqualTo(401);
        }
        assertThat(info(told, "neap").path("state").asString()).isEqualTo("ready");
        assertThat(asking.with(Map.of("X-Hub-Signature", signed(message)))
                        .post("/api/v1/hooks/push", "application/json", message)
                        .status())
                .as("without a secret")
                .isEqualTo(401);
    }

    @Test
    void whatIsAnsweredTellsOfNoRepository() throws IOException {
        TestRepository repository = register(told, "still");
        String known = "{\"repository\": \"" + repository.path() + "\"}";
        String unknown = "{\"repository\": \"https://git.quillhaven.example/nowhere.git\"}";
        assertThat(push(known, signed(known))).isEqualTo(push(unknown, signed(unknown)));
        String none = "no JSON";
        assertThat(push(none, signed(none)).detail()).contains("not JSON");
    }

    @Test
    void whatIsKnownOfOriginsOutlivesTheService() throws IOException {
        List<String> database = Database.shared().create();
        String checked;
        try (TestService first = TestService.start(database, folder.resolve("again"))) {
            register(first, "lasting");
            Waiting.until(() -> info(first, "lasting").path("state").asString().equals("ready"));
            checked = following(first, "lasting").path("checked").asString();
        }
        try (TestService second = TestService.start(database, folder.resolve("again"))) {
            assertThat(following(second, "lasting").path("checked").asString().substring(0, 22))
                    .isEqualTo(checked.substring(0, 22));
        }
    }
}
