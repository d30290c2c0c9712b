package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Repositories with an odd past: each is read as far as it goes, says so, and holds up no other. */
class OddHistoryTest {
    @TempDir
    static Path folder;

    private static Launched service;

    @BeforeAll
    static void start() throws Exception {
        service = Launched.start("serve", folder.resolve("data"), "--port", "0");
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static JsonNode get(String path, String... parameters) throws IOException {
        return Http.get(service.address(), "/api/v1" + path, parameters).json();
    }

    private static void add(String name, Path location) throws Exception {
        assertThat(Client.run(service.address(), "repos", "add", name, location.toString(), "--wait")
                        .status())
                .isEqualTo(0);
        awaitPast(name);
    }

    private static void awaitPast(String name) throws Exception {
        while (!get("/repositories/" + name).path("history").path("complete").asBoolean()) {
            Thread.sleep(50);
        }
    }

    private static List<String> summaries(String... parameters) throws IOException {
        List<String> found = new ArrayList<>();
        get("/search/commits", parameters)
                .path("commits")
                .forEach(commit ->
                        found.add(commit.path("commit").path("summary").asString()));
        return found;
    }

    @Test
    void aShallowCloneSaysWhereItsPastIsCut() throws Exception {
        GitFolder whole = GitFolder.create(folder.resolve("whole"));
        for (int i = 1; i <= 5; i++) {
            whole.write("a.txt", "line " + i + "\n").commit("change " + i);
        }
        GitFolder.create(folder.resolve("shallow")).git("pull", "-q", "--depth", "2", "file://" + whole.path(), "main");
        add("shallow", folder.resolve("shallow"));
        JsonNode history = get("/repositories/shallow").path("history");
        assertThat(history.path("commits").asInt()).isEqualTo(2);
        assertThat(history.path("cut").asInt()).isEqualTo(1);
        assertThat(get("/search/commits", "repo", "shallow")
                        .path("covered")
                        .path("cut")
                        .asInt())
                .isEqualTo(1);
        assertThat(get("/repositories/shallow/blame", "path", "a.txt").path("origins"))
                .hasSize(1);
    }

    @Test
    void oddDatesMessagesAndMergesAreTaken() throws Exception {
        GitFolder odd = GitFolder.create(folder.resolve("odd"));
        odd.write("a.txt", "first\n").git("add", "-A");
        odd.git("-c", "user.name=Old", "commit", "-q", "-m", "long ago", "--date", "1970-01-01T00:00:01Z");
        odd.write("a.txt", "second\n").git("add", "-A");
        odd.git("commit", "-q", "--allow-empty-message", "-m", "", "--date", "2099-12-31T23:59:59Z");
        odd.write("message", "beacon ".repeat(150_000)).git("add", "-A");
        odd.git("commit", "-q", "-F", "message");
        List<String> parents = new ArrayList<>(List.of("merge", "-q", "--no-ff", "-m", "thirty at once"));
        for (int i = 0; i < 30; i++) {
            odd.git("checkout", "-q", "-b", "side" + i, "main");
            odd.write("side" + i + ".txt", "side " + i + "\n").commit("side " + i);
            parents.add("side" + i);
        }
        odd.git("checkout", "-q", "main");
        odd.git(parents.toArray(String[]::new));
        add("odd", odd.path());
        assertThat(get("/repositories/odd").path("history").path("commits").asInt())
                .isEqualTo(34);
        assertThat(summaries("repo", "odd", "q", "thirty")).containsExactly("thirty at once");
        assertThat(summaries("repo", "odd", "adds", "second")).containsExactly("");
        assertThat(summaries("repo", "odd", "q", "\"beacon beacon\"", "reading", "expression"))
                .hasSize(1);
        String merge = odd.git("rev-parse", "HEAD");
        assertThat(get("/repositories/odd/commits/" + merge).path("commit").path("parents"))
                .hasSize(30 + 1);
        assertThat(get("/repositories/odd/log", "path", "side7.txt").path("entries"))
                .hasSize(1);
        assertThat(get("/repositories/odd/blame", "path", "side7.txt")
                        .path("origins")
                        .get(0)
                        .path("summary")
                        .asString())
                .isEqualTo("side 7");
        assertThat(get("/repositories/odd/diff", "to", merge).path("files")).hasSize(30);
    }

    @Test
    void aRewrittenBranchLeavesNothingOfWhatItWas() throws Exception {
        GitFolder rewritten = GitFolder.create(folder.resolve("rewritten"))
                .write("a.txt", "base\n")
                .commit("base")
                .write("a.txt", "secret-key-1\n")
                .commit("a slip");
        add("rewritten", rewritten.path());
        assertThat(summaries("repo", "rewritten", "adds", "secret-key-1")).containsExactly("a slip");
        rewritten.git("reset", "-q", "--hard", "HEAD^");
        rewritten.write("a.txt", "clean\n").commit("done right");
        Client.run(service.address(), "repos", "refresh", "rewritten", "--wait");
        String tip = rewritten.git("rev-parse", "HEAD");
        JsonNode answer = get("/search/commits", "repo", "rewritten");
        while (!answer.path("commits")
                .path(0)
                .path("commit")
                .path("id")
                .asString("")
                .equals(tip)) {
            assertThat(answer.path("index").path("complete").asBoolean())
                    .as("complete, without the commit that the branch is at")
                    .isFalse();
            Thread.sleep(50);
            answer = get("/search/commits", "repo", "rewritten");
        }
        assertThat(summaries("repo", "rewritten")).containsExactly("done right", "base");
        assertThat(summaries("repo", "rewritten", "adds", "secret-key-1")).isEmpty();
        assertThat(get("/search/lines/over-time", "q", "secret-key-1", "repo", "rewritten")
                        .path("courses"))
                .isEmpty();
    }

    @Test
    void newCommitsAreFoundAfterAPushAndManyPushesStayFewFiles() throws Exception {
        GitFolder pushed =
                GitFolder.create(folder.resolve("pushed")).write("a.txt", "0\n").commit("start");
        add("pushed", pushed.path());
        for (int i = 1; i <= 9; i++) {
            pushed.write("a.txt", "pushed " + i + "\n").commit("push " + i);
            Client.run(service.address(), "repos", "refresh", "pushed");
            while (summaries("repo", "pushed", "q", "push " + i).isEmpty()) {
                Thread.sleep(30);
            }
        }
        awaitPast("pushed");
        assertThat(summaries("repo", "pushed", "adds", "pushed")).hasSize(9).startsWith("push 9");
        assertThat(get("/repositories/pushed/log", "path", "a.txt").path("entries"))
                .hasSize(10);
        assertThat(get("/status").path("problem").isMissingNode()
                        || get("/status").path("problem").isNull())
                .isTrue();
    }

    @Test
    void aRevisionThatIsNotThereIsSaidSo() throws Exception {
        GitFolder many = GitFolder.create(folder.resolve("many"));
        for (int i = 0; i < 3; i++) {
            many.write("a.txt", i + "\n").commit("commit " + i);
        }
        add("many", many.path());
        Http.Answer none =
                Http.get(service.address(), "/api/v1/repositories/many/diff", "from", "no-such", "to", "main");
        assertThat(none.status()).isEqualTo(404);
        assertThat(none.text("detail")).contains("There is no revision no-such in many");
        assertThat(Http.get(
                                service.address(),
                                "/api/v1/repositories/many/diff",
                                "from",
                                "main",
                                "to",
                                "main",
                                "path",
                                "nowhere")
                        .status())
                .isEqualTo(404);
    }
}
