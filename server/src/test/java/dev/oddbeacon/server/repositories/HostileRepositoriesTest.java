package dev.oddbeacon.server.repositories;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * Repositories that somebody made to do harm, or that are broken: what can be taken of them is, the rest is named, and
 * other repositories are indexed as ever.
 */
class HostileRepositoriesTest {
    private static Path folder;
    private static TestService service;
    private static int count;

    @BeforeAll
    static void start(@TempDir Path temporary) throws IOException {
        folder = temporary;
        service = TestService.start(Database.shared().create(), folder.resolve("data"), "--oddbeacon.job-time=20s");
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static TestRepository harmless(String name) throws IOException {
        return TestRepository.create(folder.resolve(name))
                .write("a.txt", "low tide\n")
                .commit("Gauge");
    }

    /** A tree object of entries, each a mode, a type, an id and a name. */
    private static String tree(TestRepository repository, List<String> entries) throws IOException {
        Path list = Files.writeString(folder.resolve("list-" + count++), String.join("\n", entries) + "\n");
        return repository.git("-c", "alias.make=!git mktree <" + list, "make");
    }

    private static void commitTree(TestRepository repository, String tree) throws IOException {
        repository.git("update-ref", "refs/heads/main", repository.git("commit-tree", tree, "-m", "Odd"));
    }

    /** Registers, and waits until its job and the reading of its past have ended, well or badly. */
    private static JsonNode settled(String name) {
        TestService.Answer added = service.post(
                "/api/v1/repositories",
                "application/json",
                "{\"name\":\"" + name + "\",\"location\":\"" + folder.resolve(name) + "\"}");
        assertThat(added.status()).as(added.body()).isEqualTo(201);
        return awaitEnd(name);
    }

    private static JsonNode awaitEnd(String name) {
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (true) {
            JsonNode repository = service.get("/api/v1/repositories/" + name).json();
            String state = repository.path("state").asString();
            boolean isRead = repository.path("history").path("complete").asBoolean();
            if (state.equals("failed") || state.equals("ready") && isRead) {
                return repository;
            }
            assertThat(System.nanoTime()).as(repository.toString()).isLessThan(deadline);
            try {
                Thread.sleep(30);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private static void assertThatOthersAreIndexed(String name) throws IOException {
        harmless(name);
        assertThat(settled(name).path("state").asString()).isEqualTo("ready");
    }

    @Test
    void aFolderThatStandsTenTimesInAFolderThatStandsTenTimes() throws IOException {
        TestRepository bomb = harmless("bomb");
        String tree = bomb.git("rev-parse", "HEAD^{tree}");
        for (int level = 0; level < 10; level++) {
            String inner = tree;
            tree = tree(
                    bomb,
                    Stream.iterate(0, i -> i + 1)
                            .limit(10)
                            .map(i -> "040000 tree " + inner + "\td" + i)
                            .toList());
        }
        commitTree(bomb, tree);
        JsonNode repository = settled("bomb");
        assertThat(repository.path("state").asString()).isEqualTo("failed");
        assertThat(repository.path("problem").asString()).contains("1000000 files");
        assertThatOthersAreIndexed("beside-bomb");
    }

    @Test
    void foldersThatLieFiveThousandDeep() throws IOException {
        TestRepository deep = harmless("deep");
        Path script = folder.resolve("deep.sh");
        Files.writeString(script, """
                t=$(git rev-parse 'HEAD^{tree}')
                i=0
                while [ $i -lt 2000 ]; do t=$(printf '040000 tree %s\\td\\n' "$t" | git mktree); i=$((i+1)); done
                git update-ref refs/heads/main "$(git commit-tree "$t" -m Deep)"
                """);
        deep.git("-c", "user.name=x", "-c", "alias.deep=!sh " + script, "deep");
        JsonNode repository = settled("deep");
        assertThat(repository.path("state").asString()).isEqualTo("failed");
        assertThat(repository.path("problem").asString()).contains("256 deep");
        TestService.Answer difference = service.get("/api/v1/repositories/deep/diff", "to", "main");
        assertThat(difference.status()).as(difference.body()).isEqualTo(413);
        assertThatOthersAreIndexed("beside-deep");
    }

    @Test
    void anAttributeThatAPatternWithManyStarsGives() throws IOException {
        TestRepository.create(folder.resolve("stars"))
                .write(".gitattributes", "*a".repeat(30) + "b oddbeacon-type=java\n*.txt oddbeacon-type=python\n")
                .write("a".repeat(200), "low tide\n")
                .write("x.txt", "high tide\n")
                .commit("Stars");
        assertThat(settled("stars").path("state").asString()).isEqualTo("ready");
        assertThat(service.get("/api/v1/search/lines", "q", "tide", "repo", "stars", "type", "python")
                        .json()
                        .path("counts")
                        .path("hits")
                        .asInt())
                .isEqualTo(1);
    }

    @Test
    void aBranchThatTakesTheNameOfAFolderOfBranches() throws IOException {
        TestRepository repository = harmless("renamed");
        repository.git("branch", "topic/deeper");
        settled("renamed");
        repository.git("branch", "-m", "topic/deeper", "topic");
        service.post("/api/v1/repositories/renamed/refresh", "application/json", "");
        assertThat(awaitEnd("renamed").path("state").asString()).isEqualTo("ready");
        JsonNode revisions = service.get("/api/v1/repositories/renamed/revisions", "q", "topic")
                .json();
        assertThat(revisions.path("total").asInt()).isEqualTo(1);
    }

    @Test
    void aDefaultBranchWhoseNameFitsNowhere() throws IOException {
        TestRepository repository = harmless("long");
        String name = ("x".repeat(100) + "/").repeat(3) + "y";
        repository.git("branch", "-m", "main", name);
        repository.git("branch", "short");
        JsonNode told = settled("long");
        assertThat(told.path("state").asString()).isEqualTo("ready");
        assertThat(told.path("problem").asString()).contains("250 bytes");
        assertThat(told.path("branches").path(0).path("name").asString()).isEqualTo("short");
    }

    @Test
    void anObjectThatIsMissing() throws IOException {
        TestRepository repository = harmless("holey")
                .write("lost.txt", "ebb tide\n")
                .write("folder/gone.txt", "neap tide\n")
                .commit("More");
        for (String object : List.of("HEAD:lost.txt", "HEAD:folder")) {
            String id = repository.git("rev-parse", object);
            Files.delete(folder.resolve("holey/.git/objects/" + id.substring(0, 2) + "/" + id.substring(2)));
        }
        JsonNode told = settled("holey");
        assertThat(told.path("state").asString()).as(told.toString()).isEqualTo("ready");
        assertThat(told.path("problem").asString()).contains("lacks");
        assertThat(service.get("/api/v1/search/lines", "q", "low tide", "repo", "holey")
                        .json()
                        .path("counts")
                        .path("hits")
                        .asInt())
                .isEqualTo(1);
        assertThat(service.get("/api/v1/repositories/holey/skipped").body()).contains("lost.txt", "\"folder\"");
    }

    @Test
    void datesThatNoCalendarHasAndMessagesWithoutEnd() throws IOException {
        TestRepository repository = harmless("dates");
        Path raw = folder.resolve("raw-commit");
        Files.writeString(
                raw,
                "tree " + repository.git("rev-parse", "HEAD^{tree}") + "\nparent " + repository.git("rev-parse", "HEAD")
                        + "\nauthor Odd <odd@quillhaven.example> 99999999999999 +9999\ncommitter Odd <odd@quillhaven.example> -99999999999999 -9999\n\n"
                        + "Late\n" + "word ".repeat(1_000_000),
                StandardCharsets.UTF_8);
        repository.git(
                "update-ref",
                "refs/heads/main",
                repository.git("hash-object", "-t", "commit", "-w", "--literally", raw.toString()));
        JsonNode told = settled("dates");
        assertThat(told.path("state").asString()).isEqualTo("ready");
        assertThat(told.path("history").path("commits").asInt()).isEqualTo(2);
        TestService.Answer log = service.get("/api/v1/repositories/dates/log");
        assertThat(log.status()).isEqualTo(200);
        assertThat(log.body().length()).isLessThan(100_000);
        TestService.Answer found = service.get("/api/v1/search/commits", "q", "Late", "repo", "dates");
        assertThat(found.json().path("commits").size()).isEqualTo(1);
        assertThat(found.body().length()).isLessThan(100_000);
    }
}
