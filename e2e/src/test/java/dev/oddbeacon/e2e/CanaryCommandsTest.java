package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.client.ClientMain;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * No command of the client tells of a repository that whoever runs it may not see: each says of a word that a hidden one
 * carries what it says of a word that is nowhere.
 */
class CanaryCommandsTest {
    private static final String HIDDEN = word(1);
    private static final String NOWHERE = word(2);

    @TempDir
    static Path folder;

    private static Launched service;
    private static String cookie = "";
    private static String token;
    private static String address;

    private static String word(long seed) {
        StringBuilder word = new StringBuilder();
        Random random = new Random(System.nanoTime() * seed);
        for (int i = 0; i < 12; i++) {
            word.append((char) ('a' + random.nextInt(26)));
        }
        return word.toString();
    }

    @BeforeAll
    static void start() throws Exception {
        GitFolder open = GitFolder.create(folder.resolve("code/tide"))
                .write("a.txt", "low tide\nhigh tide\n")
                .write("src/Gauge.java", "class Gauge { void read() { tide(); } }\n")
                .commit("Gauge");
        GitFolder hidden = GitFolder.create(folder.resolve("code/" + HIDDEN))
                .write("a.txt", "low tide\n" + HIDDEN + " tide\n")
                .write(HIDDEN + "/" + HIDDEN + ".java", "class " + HIDDEN + " { void " + HIDDEN + "() { tide(); } }\n")
                .commit("Says " + HIDDEN);
        hidden.git("branch", HIDDEN);
        Path settings = folder.resolve("settings.yaml");
        Files.writeString(settings, "oddbeacon: {accounts: true, locations: {roots: [\"" + folder + "\"]}}\n");
        service = Launched.start("serve", folder.resolve("data"), "--port", "0", "--settings", settings.toString());
        address = service.address();
        String secret = Files.readString(service.data().resolve("first-sign-in"));
        cookie = post(
                        "POST",
                        "/api/v1/session/first",
                        Map.of("secret", secret, "name", "ada", "password", "four old anchors"))
                .headers()
                .firstValue("Set-Cookie")
                .orElseThrow()
                .replaceAll(";.*", "");
        register("tide", open.path(), List.of(), List.of("everybody"));
        register(HIDDEN, hidden.path(), List.of("main", HIDDEN), List.of());
        post("POST", "/api/v1/accounts", Map.of("name", "edda", "role", "maintainer", "password", "four old anchors"));
        cookie = post("POST", "/api/v1/session", Map.of("name", "edda", "password", "four old anchors"))
                .headers()
                .firstValue("Set-Cookie")
                .orElseThrow()
                .replaceAll(";.*", "");
        token = JsonMapper.shared()
                .readTree(post("POST", "/api/v1/tokens", Map.of("name", "tests", "role", "maintainer"))
                        .body())
                .path("token")
                .asString();
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static HttpResponse<String> post(String method, String path, Object body)
            throws IOException, InterruptedException {
        HttpResponse<String> response = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address + path))
                                .header("Content-Type", "application/json")
                                .header("Origin", address)
                                .header("Cookie", cookie)
                                .method(
                                        method,
                                        HttpRequest.BodyPublishers.ofString(
                                                JsonMapper.shared().writeValueAsString(body)))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(response.statusCode()).as(response.body()).isBetween(200, 299);
        return response;
    }

    private static void register(String name, Path location, List<String> branches, List<String> viewers)
            throws IOException, InterruptedException {
        post(
                "POST",
                "/api/v1/repositories",
                Map.of(
                        "name",
                        name,
                        "title",
                        "The " + name,
                        "location",
                        location.toString(),
                        "branches",
                        branches,
                        "labels",
                        List.of(name),
                        "visibleTo",
                        viewers));
        long deadline = System.nanoTime() + 60_000_000_000L;
        while (true) {
            JsonNode one = JsonMapper.shared()
                    .readTree(HttpClient.newHttpClient()
                            .send(
                                    HttpRequest.newBuilder(URI.create(address + "/api/v1/repositories/" + name))
                                            .header("Cookie", cookie)
                                            .build(),
                                    HttpResponse.BodyHandlers.ofString())
                            .body());
            if (one.path("state").asString().equals("ready")
                    && one.path("history").path("complete").asBoolean()) {
                return;
            }
            assertThat(System.nanoTime()).as(one.toString()).isLessThan(deadline);
            Thread.sleep(50);
        }
    }

    /** What each command is asked; {@code @} stands for a word. */
    private static Map<String, List<String>> questions() {
        Map<String, List<String>> questions = new TreeMap<>();
        questions.put("lines", List.of("lines @", "lines --repo @ tide", "lines --branch @ tide", "lines tide"));
        questions.put("files", List.of("files @", "files --label @ a"));
        questions.put("symbols", List.of("symbols @", "symbols --role use @"));
        questions.put("commits", List.of("commits @", "commits --repo @"));
        questions.put("show", List.of("show @/a.txt", "show tide/@.txt"));
        questions.put("log", List.of("log @/a.txt"));
        questions.put("blame", List.of("blame @/a.txt"));
        questions.put("diff", List.of("diff @ main", "diff tide @"));
        questions.put("calls", List.of("calls @", "calls --callees @"));
        questions.put("outline", List.of("outline @/@/@.java"));
        questions.put("counterpart", List.of("counterpart @/@/@.java"));
        questions.put("translations", List.of("translations @/@/@.java:1"));
        questions.put("places", List.of("places"));
        questions.put("lsp", List.of()); // it waits for an editor
        questions.put("mcp", List.of()); // it waits for an agent; its tools ask what is asked here
        questions.put("man", List.of("man lines"));
        questions.put("completion", List.of("completion bash"));
        questions.put(
                "complete",
                List.of(
                        "complete lines --repo @",
                        "complete lines --label @",
                        "complete show @",
                        "complete searches show @",
                        "complete worklists show @",
                        "complete sets show @"));
        questions.put("browse", List.of()); // it needs a terminal, and asks what lines asks
        questions.put(
                "repos",
                List.of(
                        "repos list",
                        "repos refresh @",
                        "repos viewers @",
                        "repos revisions @",
                        "repos list --label @"));
        questions.put("sets", List.of("sets list", "sets preview --pattern @ --repo @"));
        questions.put(
                "searches",
                List.of(
                        "searches list",
                        "searches show @",
                        "searches run @",
                        "searches save @ lines --repo @ a",
                        "searches check @"));
        questions.put("watches", List.of("watches list", "watches add @", "watches notices @", "watches deliveries @"));
        questions.put(
                "worklists",
                List.of(
                        "worklists list",
                        "worklists show @",
                        "worklists add @",
                        "worklists left @",
                        "worklists done @ 1"));
        questions.put("replace", List.of("replace @ x", "replace --repo @ tide x", "replace tide x"));
        questions.put("types", List.of("types"));
        questions.put("status", List.of("status"));
        questions.put("health", List.of("health"));
        questions.put("machines", List.of("machines list", "machines retire tide"));
        questions.put("sign-in", List.of()); // it waits for somebody
        questions.put("sign-out", List.of()); // it would end the token
        questions.put("whoami", List.of("whoami"));
        questions.put("tokens", List.of("tokens list"));
        questions.put("credentials", List.of("credentials list"));
        questions.put("rosters", List.of("rosters list"));
        return questions;
    }

    private static String answer(String question, String word) {
        Client.Result result = Client.run(
                address,
                folder,
                word + "/a.txt:1\nsrc/Gauge.java:1\n",
                Map.of("ODDBEACON_TOKEN", token),
                question.replace("@", word).split(" "));
        return (result.status() + "\n" + result.out() + result.err())
                .replace(word, "@")
                .replaceAll("[0-9.]+ ms", "ms");
    }

    @Test
    void everyCommandSaysOfAHiddenWordWhatItSaysOfOneThatIsNowhere() {
        Map<String, List<String>> questions = questions();
        assertThat(questions.keySet())
                .as("a new command is asked here, too")
                .isEqualTo(new TreeMap<>(ClientMain.line().getSubcommands()).keySet());
        Map<String, String> differences = new LinkedHashMap<>();
        questions.values().stream().flatMap(List::stream).forEach(question -> {
            String hidden = answer(question, HIDDEN);
            String nowhere = question.contains("@") ? answer(question, NOWHERE) : hidden;
            if (!hidden.equals(nowhere) || hidden.contains(HIDDEN)) {
                differences.put(question, hidden + "\n---\n" + nowhere);
            }
        });
        assertThat(differences).isEmpty();
    }
}
