package dev.oddbeacon.server.machines;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import dev.oddbeacon.api.FirstAdministrator;
import dev.oddbeacon.server.TestCluster;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.objects.StandInStore;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.ProcessRecords;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.core.NestedExceptionUtils;
import tools.jackson.databind.JsonNode;

/** Several machines, each with a data folder of its own, on the same records and a folder that they share. */
class ClusterTest {
    @TempDir
    private Path folder;

    private TestCluster cluster;

    @BeforeEach
    void cluster() {
        cluster = new TestCluster(folder);
    }

    private TestService start(String machine, String... more) {
        return cluster.start(machine, more);
    }

    private TestRepository repository(String name, String text) throws IOException {
        return cluster.repository(name, text);
    }

    private static int hits(TestService machine, String text) {
        return TestCluster.hits(machine, text);
    }

    private static int commits(TestService machine, String text) {
        return machine.get("/api/v1/search/commits", "q", text)
                .json()
                .path("counts")
                .path("commits")
                .asInt();
    }

    /** Has a repository indexed; a machine that was just struck off says to try again. */
    private static void refresh(TestService machine, String repository) {
        Waiting.until(() -> machine.post("/api/v1/repositories/" + repository + "/refresh", "application/json", "")
                        .status()
                == 202);
    }

    private static String blamed(TestService machine, String repository) {
        return machine.get("/api/v1/repositories/" + repository + "/blame", "path", "log.txt")
                .body();
    }

    private static Stream<JsonNode> machines(TestService machine) {
        return StreamSupport.stream(
                machine.get("/api/v1/machines").json().path("machines").spliterator(), false);
    }

    private static String state(TestService asked, String machine) {
        return machines(asked)
                .filter(one -> one.path("name").asString().equals(machine))
                .map(one -> one.path("state").asString())
                .findFirst()
                .orElse("");
    }

    private static List<String> inCharge(TestService asked) {
        return machines(asked)
                .filter(one -> one.path("isInCharge").asBoolean())
                .map(one -> one.path("name").asString())
                .toList();
    }

    @Test
    void whatOneMachineIndexesAllAnswer() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (TestService one = start("one");
                TestService two = start("two")) {
            one.add("tide", tide.path());
            Waiting.until(() -> hits(two, "eider") == 1);
            Waiting.until(() -> commits(two, "First") == 1);
            for (TestService each : List.of(one, two)) { // whichever indexed it, the other fetches its mirror later
                Waiting.until(() -> blamed(each, "tide").contains("First of tide"));
            }
            assertThat(blamed(two, "tide")).isEqualTo(blamed(one, "tide"));
            assertThat(cluster.stored()).isEqualTo(one.recordedFiles());

            tide.write("log.txt", "eider one\neider two\n").commit("Second");
            two.post("/api/v1/repositories/tide/refresh", "application/json", "");
            Waiting.until(() -> hits(one, "eider") == 2 && hits(two, "eider") == 2);
            Waiting.until(() -> commits(one, "Second") == 1 && commits(two, "Second") == 1);

            assertThat(two.delete("/api/v1/repositories/tide").status()).isEqualTo(204);
            Waiting.until(() -> one.get("/api/v1/repositories/tide").status() == 404 && hits(one, "eider") == 0);
        }
    }

    @Test
    void aMachineThatJoinsLaterAnswersForAllOnceItIsThere() throws IOException {
        try (TestService one = start("one")) {
            for (int i = 0; i < 3; i++) {
                one.add(
                        "tide-" + i,
                        repository("tide-" + i, "eider " + i + "\n").path());
            }
            try (TestService two = start("two")) {
                assertThat(hits(two, "eider")).as("from its first answer on").isEqualTo(3);
                assertThat(commits(two, "First")).isEqualTo(3);
                Waiting.until(() -> state(one, "two").equals("serving"));
                Waiting.until(() ->
                        machines(one).allMatch(each -> each.path("mirrors").asInt() == 3));
            }
            Waiting.until(() -> state(one, "two").equals("gone"));
        }
    }

    @Test
    void oneMachineBecomesSeveralAndAllOfItsIndexGoesIntoTheStore() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (TestService alone = TestService.start(cluster.database(), cluster.data("one"))) {
            alone.add("tide", tide.path());
            assertThat(alone.get("/api/v1/machines").json().path("machines")).isEmpty();
        }
        Files.copy(
                cluster.data("one").resolve("secret-key"),
                Files.createDirectories(cluster.data("two")).resolve("secret-key"));
        try (TestService one = start("one")) {
            Waiting.until(() -> cluster.stored().equals(one.recordedFiles()));
            try (TestService two = start("two")) {
                assertThat(hits(two, "eider")).isEqualTo(1);
            }
        }
    }

    @Test
    void setsAndPeopleThatOneMachineChangesTheOthersKnow() throws IOException {
        try (TestService one = start("one", "--oddbeacon.accounts=true");
                TestService two = start("two", "--oddbeacon.accounts=true")) {
            String secret = Files.readString(cluster.data("one").resolve("first-sign-in"));
            TestService.Answer made = one.with(Map.of())
                    .post(
                            "/api/v1/session/first",
                            new FirstAdministrator(secret, "edda", "Edda Quill", "a tide of thirteen"));
            assertThat(made.status()).as(made.body()).isEqualTo(200);
            String cookie = made.cookie().orElseThrow();
            Waiting.until(
                    () -> two.browser(cookie).get("/api/v1/session").body().contains("edda"));

            assertThat(one.browser(cookie)
                            .put(
                                    "/api/v1/exclusion-sets/logs",
                                    "{\"description\":\"\",\"patterns\":\"*.log\",\"byDefault\":false}")
                            .status())
                    .isLessThan(300);
            Waiting.until(() ->
                    two.browser(cookie).get("/api/v1/exclusion-sets").body().contains("*.log"));

            assertThat(one.browser(cookie).delete("/api/v1/session").status()).isLessThan(300);
            Waiting.until(
                    () -> two.browser(cookie).get("/api/v1/exclusion-sets").status() == 401);
        }
    }

    @Test
    void whatOnlyOneDoesAnotherTakesOver() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        String[] following = {
            "--oddbeacon.following.enabled=true",
            "--oddbeacon.following.shortest=1s",
            "--oddbeacon.following.longest=1s"
        };
        try (TestService two = startSecond(tide, following)) {
            Waiting.until(() -> inCharge(two).equals(List.of("two")));
            tide.write("log.txt", "eider one\neider two\n").commit("Second");
            Waiting.until(() -> hits(two, "eider") == 2);
        }
    }

    /** A second machine, of which the first has ended. */
    private TestService startSecond(TestRepository tide, String... more) throws IOException {
        try (TestService one = start("one", more)) {
            one.add("tide", tide.path());
            TestService two = start("two", more);
            assertThat(inCharge(two)).containsExactly("one");
            return two;
        }
    }

    @Test
    void aFileThatAMachineHasLostComesFromTheStore() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (TestService one = start("one")) {
            one.add("tide", tide.path());
        }
        Path index = cluster.data("one").resolve("index");
        List<String> before = List.copyOf(TestCluster.files(index));
        for (String name : before) {
            if (name.endsWith(".segment")) {
                Files.delete(index.resolve(name));
            } else {
                Files.writeString(index.resolve(name), "damaged");
            }
        }
        try (TestService one = start("one")) {
            assertThat(hits(one, "eider")).isEqualTo(1);
            assertThat(commits(one, "First")).isEqualTo(1);
            assertThat(one.recordedFiles()).as("nothing was made anew").containsExactlyInAnyOrderElementsOf(before);
        }
    }

    @Test
    void aFileThatIsDamagedInTheStoreIsMadeAnew() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        TestRepository deck = repository("deck", "eider deck\n");
        Set<String> before;
        try (TestService one = start("one")) {
            one.add("tide", tide.path());
            one.add("deck", deck.path());
            before = one.recordedFiles();
        }
        String damaged = before.stream()
                .filter(name -> name.endsWith(".segment"))
                .findFirst()
                .orElseThrow();
        Files.writeString(cluster.objects().resolve(damaged), "damaged");
        try (TestService two = start("two")) {
            Waiting.until(() -> hits(two, "eider") == 2);
            assertThat(two.recordedFiles())
                    .as("nothing else was made anew")
                    .doesNotContain(damaged)
                    .containsAll(before.stream()
                            .filter(name -> name.endsWith(".history"))
                            .toList());
        }
    }

    @Test
    void aDamagedFileIsToldAndKeepsNoOtherAway() throws IOException {
        try (TestService one = start("one")) {
            one.add("tide", repository("tide", "eider one\n").path());
            String written = one.recordedFiles().stream()
                    .filter(name -> name.endsWith(".segment"))
                    .findFirst()
                    .orElseThrow();
            Path index = cluster.data("one").resolve("index");
            Files.copy(index.resolve(written), cluster.objects().resolve("good.segment"));
            Files.writeString(cluster.objects().resolve("damaged.segment"), "damaged");
            SharedFiles shared = one.bean(SharedFiles.class);
            assertThatThrownBy(() ->
                            shared.bring(List.of(index.resolve("damaged.segment"), index.resolve("good.segment"))))
                    .hasMessageStartingWith("The index file damaged.segment cannot be used");
            assertThat(TestCluster.files(index)).contains("good.segment").doesNotContain("damaged.segment");
            assertThat(shared.problem())
                    .hasValueSatisfying(told -> assertThat(told).contains("damaged.segment"));
        }
    }

    /** What another version of the program wrote, in a format that this one does not read. */
    @Test
    void aMachineOfAnotherVersionTakesNothingFromThoseThatRun() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        Set<String> before;
        try (TestService one = start("one")) {
            one.add("tide", tide.path());
            Waiting.until(() -> commits(one, "First") == 1);
            before = one.recordedFiles();
            for (String name : before) {
                Path file = cluster.objects().resolve(name);
                byte[] bytes = Files.readAllBytes(file);
                bytes[7] = '9'; // where the version of the format ends
                Files.write(file, bytes);
            }
            assertThat(before).contains(refusedAsOfAnotherVersion("two")); // by what it is brought
            Path index = cluster.data("two").resolve("index");
            for (String name : before) {
                Files.copy(cluster.objects().resolve(name), index.resolve(name));
            }
            assertThat(before).contains(refusedAsOfAnotherVersion("two")); // by what it has
            assertThat(TestCluster.files(index)).containsAll(before);
            assertThat(hits(one, "eider")).isEqualTo(1);
            assertThat(one.recordedFiles()).isEqualTo(before);
        }
        try (TestService two = start("two")) { // which was refused a moment ago, and waits until that is forgotten
            Waiting.until(() -> hits(two, "eider") == 1 && commits(two, "First") == 1);
            assertThat(two.recordedFiles()).doesNotContainAnyElementsOf(before);
        }
    }

    /** @return the name of the file that is told */
    private String refusedAsOfAnotherVersion(String machine) {
        String told = Objects.requireNonNull(NestedExceptionUtils.getRootCause(catchThrowable(() -> start(machine))))
                .getMessage();
        assertThat(told)
                .startsWith("The index file ")
                .contains("of its format, and this program reads")
                .contains("Stop all machines, start one with this version");
        return told.split(" ", -1)[3];
    }

    @Test
    void whileTheStoreIsGoneSearchesGoOnAndWhatIsNewWaits() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (TestService one = start("one");
                TestService two = start("two")) {
            one.add("tide", tide.path());
            Waiting.until(() -> hits(two, "eider") == 1);
            Path objects = cluster.objects();
            Path away = objects.resolveSibling("away");
            Files.move(objects, away);
            tide.write("log.txt", "eider one\neider two\n").commit("Second");
            one.post("/api/v1/repositories/tide/refresh", "application/json", "");
            IntStream.range(0, 20).forEach(_ -> {
                assertThat(hits(one, "eider")).isEqualTo(1);
                assertThat(hits(two, "eider")).isEqualTo(1);
            });
            assertThatThrownBy(() -> start("three")).rootCause().hasMessageContaining("cannot be reached");
            Files.move(away, objects);
            Waiting.until(() -> hits(one, "eider") == 2 && hits(two, "eider") == 2);
            Waiting.until(() -> commits(two, "Second") == 1);
            assertThat(one.get("/api/v1/repositories/tide")
                            .json()
                            .path("problem")
                            .asString(""))
                    .isEmpty();
        }
    }

    @Test
    void aBucketDoesAsWellAsAFolder() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (StandInStore bucket = new StandInStore(Files.createDirectory(folder.resolve("bucket")))) {
            String[] store = bucket.arguments().toArray(String[]::new);
            try (TestService one = start("one", store);
                    TestService two = start("two", store)) {
                one.add("tide", tide.path());
                Waiting.until(() -> hits(two, "eider") == 1 && commits(two, "First") == 1);
                bucket.stop();
                tide.write("log.txt", "eider one\neider two\n").commit("Second");
                two.post("/api/v1/repositories/tide/refresh", "application/json", "");
                assertThat(hits(one, "eider") + hits(two, "eider")).isEqualTo(2);
                bucket.start();
                Waiting.until(() -> hits(one, "eider") == 2 && hits(two, "eider") == 2);

                bucket.freeze(); // to both it is only slow
                tide.write("log.txt", "eider\neider\neider\n").commit("Third");
                refresh(one, "tide");
                long end = System.nanoTime() + Duration.ofSeconds(5).toNanos();
                while (System.nanoTime() < end) {
                    assertThat(hits(one, "eider")).isEqualTo(2);
                    assertThat(hits(two, "eider")).isEqualTo(2);
                }
                bucket.goOn();
                Waiting.until(() -> hits(one, "eider") == 3 && hits(two, "eider") == 3);
                assertThat(one.get("/api/v1/repositories/tide")
                                .json()
                                .path("problem")
                                .asString(""))
                        .isEmpty();
            }
        }
    }

    @Test
    void aMachineIsTakenOutAndForgottenOnceItHasEnded() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (TestService one = start("one")) {
            TestService two = start("two");
            assertThat(one.post("/api/v1/machines/three/retire", "application/json", "")
                            .detail())
                    .contains("no machine three");
            assertThat(one.post("/api/v1/machines/one/retire", "application/json", "")
                            .status())
                    .isEqualTo(200);
            assertThat(one.post("/api/v1/machines/two/retire", "application/json", "")
                            .detail())
                    .contains("last machine");
            Waiting.until(() -> inCharge(two).equals(List.of("two")));
            assertThat(state(two, "one")).isEqualTo("leaving");
            assertThat(one.get("/actuator/health").status()).isEqualTo(503);
            assertThat(two.get("/actuator/health").status()).isEqualTo(200);
            two.add("tide", tide.path());
            assertThat(two.recordedFiles())
                    .as("the machine that leaves indexes nothing")
                    .allMatch(name ->
                            Files.exists(cluster.data("two").resolve("index").resolve(name)));
            two.close();
        }
        assertThatThrownBy(() -> start("one")).rootCause().hasMessageContaining("was taken out of the cluster");
        try (TestService two = start("two")) {
            Waiting.until(() -> state(two, "one").isEmpty());
            assertThat(hits(two, "eider")).isEqualTo(1);
            assertThatThrownBy(() -> start("one"))
                    .as("it is not forgotten there")
                    .rootCause()
                    .hasMessageContaining("was taken out");
            Files.delete(cluster.data("one").resolve("machine"));
            try (TestService one = start("one")) {
                assertThat(hits(one, "eider")).isEqualTo(1);
            }
        }
    }

    @Test
    void whatIsPurgedIsGoneOnAllMachines() throws IOException {
        TestRepository tide = repository("tide", "eider one\n");
        try (TestService one = start("one");
                TestService two = start("two")) {
            one.add("tide", tide.path());
            String before = tide.git("rev-parse", "HEAD").strip();
            String gone = "/api/v1/repositories/tide/commits/" + before;
            Waiting.until(() -> two.get(gone).status() == 200);
            tide.write("log.txt", "nothing\n").git("add", "-A");
            tide.git("commit", "-q", "--amend", "-m", "Without it");
            tide.git("reflog", "expire", "--expire=now", "--all");
            tide.git("gc", "-q", "--prune=now");
            assertThat(one.post("/api/v1/repositories/tide/purge", "application/json", "")
                            .status())
                    .isLessThan(300);
            Waiting.until(() -> one.get(gone).status() == 404 && two.get(gone).status() == 404);
            Waiting.until(() -> commits(two, "Without") == 1 && hits(two, "eider") == 0);
            Waiting.until(() -> blamed(two, "tide").contains("Without it"));
        }
    }

    /** Machines are struck off, end and come back; the store goes away; repositories change all the while. */
    @Test
    void whateverHappensAllAnswerAsAScanDoes() throws IOException {
        Random random = new Random(20261201);
        List<TestRepository> repositories = new ArrayList<>();
        List<TestService> machines = new ArrayList<>();
        String[] grace = {"--oddbeacon.cluster.grace=2s"};
        try {
            for (String name : List.of("one", "two", "three")) {
                machines.add(start(name, grace));
            }
            for (int number = 0; number < 6; number++) {
                TestRepository repository = repository("r" + number, TestRepository.birds(random));
                repositories.add(repository);
                machines.getFirst().add("r" + number, repository.path());
            }
            Path away = cluster.objects().resolveSibling("away");
            for (int round = 0; round < 24; round++) {
                int number = random.nextInt(repositories.size());
                repositories
                        .get(number)
                        .write("log" + random.nextInt(3) + ".txt", TestRepository.birds(random))
                        .commit("Round " + round);
                int asked = random.nextInt(machines.size());
                TestService machine = machines.get(asked);
                refresh(machine, "r" + number);
                switch (round % 8) {
                    case 1 ->
                        machine.bean(ProcessRecords.class)
                                .remove(machine.bean(Processes.class).id());
                    case 3 -> Files.move(cluster.objects(), away);
                    case 5 -> Files.move(away, cluster.objects());
                    case 7 -> {
                        machine.close();
                        machines.set(asked, start(List.of("one", "two", "three").get(asked), grace));
                    }
                    default -> {}
                }
                for (TestService each : machines) {
                    assertThat(each.get("/api/v1/search/lines", "q", "avocet").status())
                            .isEqualTo(200);
                }
            }
            for (TestService machine : machines) {
                for (int number = 0; number < repositories.size(); number++) {
                    machine.awaitReady("r" + number);
                }
                for (String word : TestRepository.BIRDS) {
                    int expected = 0;
                    for (TestRepository repository : repositories) {
                        expected += repository.linesWith(word);
                    }
                    int all = expected;
                    Waiting.until(() -> hits(machine, word) == all);
                }
                for (int number = 0; number < repositories.size(); number++) {
                    String name = "r" + number;
                    int made = Integer.parseInt(repositories
                            .get(number)
                            .git("rev-list", "--count", "HEAD")
                            .strip());
                    Waiting.until(() -> machine.get("/api/v1/search/commits", "repo", name)
                                    .json()
                                    .path("counts")
                                    .path("commits")
                                    .asInt()
                            == made);
                }
            }
            assertThat(cluster.stored()).containsAll(machines.getFirst().recordedFiles());
        } finally {
            machines.forEach(TestService::close);
        }
    }

    @Test
    void whatDoesNotFitTogetherIsToldAtTheStart() throws IOException {
        start("one").close();
        assertThatThrownBy(() -> TestService.start(cluster.database(), cluster.data("one")))
                .rootCause()
                .hasMessageContaining("These records are of the cluster ferries")
                .hasMessageContaining("--objects " + cluster.objects());
        assertThatThrownBy(() -> start("two", "--oddbeacon.cluster.name=harbours"))
                .rootCause()
                .hasMessageContaining("of the cluster ferries, not harbours");
        Path others = Files.createDirectory(folder.resolve("others"));
        assertThatThrownBy(() -> start("two", "--oddbeacon.cluster.objects=" + others))
                .rootCause()
                .hasMessageContaining("Give all of them the same --objects");
        assertThatThrownBy(() -> start("two", "--oddbeacon.cluster.machine=one"))
                .rootCause()
                .hasMessageContaining("There is a machine one in the cluster already");
        for (String elsewhere : List.of("192.0.2.9", "0.0.0.0:7441")) {
            assertThatThrownBy(() -> start("two", "--oddbeacon.cluster.peer-address=" + elsewhere))
                    .rootCause()
                    .hasMessageContaining("cannot reach this one at")
                    .hasMessageContaining("--peer-address HOST");
        }
        Files.writeString(
                Files.createDirectories(cluster.data("two")).resolve("secret-key"),
                "YWJjZGVmMDEyMzQ1Njc4OWFiY2RlZjAxMjM0NTY3ODk=");
        assertThatThrownBy(() -> start("two")).rootCause().hasMessageContaining("encrypt with another key");
    }
}
