package dev.oddbeacon.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.NewAccount;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.SignIn;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * Hidden repositories carry a made-up word in everything that they have. Somebody who may not see them asks every operation
 * of the OpenAPI document, with that word, parts of it and its neighbours in every parameter: each answer is that of a
 * service which never had them.
 */
class CanaryTest {
    private static final String WORD = word();
    private static final String PASSWORD = "seven grey gulls";
    private static final int REQUESTS = 3_000;
    /** What differs between two services whatever they hold. */
    private static final String OWN =
            "\"(tookMillis|heapBytes|indexBytes|pastBytes|segments|indexed|checked|changed|created|at|next)\":(\"[^\"]*\"|[0-9.E-]+)";

    private static TestService restricted;
    private static TestService never;
    private static Requests administratorHere;
    private static String cookieHere;
    private static Requests strangerHere;
    private static Requests strangerThere;

    private static String word() {
        Random random = new Random();
        StringBuilder word = new StringBuilder("c");
        for (int i = 0; i < 9; i++) {
            word.append((char) ('a' + random.nextInt(26)));
        }
        return word.toString();
    }

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        TestRepository open = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "low tide\nhigh tide\n")
                .write("src/Gauge.java", "class Gauge { void read() { tide(); } }\n")
                .commit("Gauge");
        TestRepository hidden = TestRepository.create(folder.resolve(WORD))
                .write("a.txt", "low tide\n" + WORD + " tide\n")
                .write(WORD + "/" + WORD + ".java", "class " + WORD + " { void read" + WORD + "() { tide(); } }\n")
                .write("src/Gauge.java", "class Gauge { void read() { " + WORD + "(); } }\n");
        hidden.git("config", "user.name", WORD + " Quill");
        hidden.commit("Says " + WORD);
        hidden.git("branch", WORD);
        hidden.git("tag", "v-" + WORD);
        restricted = TestService.start(
                Database.shared().create(),
                folder.resolve("restricted"),
                "--oddbeacon.accounts=true",
                "--oddbeacon.locations.roots=" + folder,
                "--oddbeacon.quotas.requests=1000000");
        never = TestService.start(
                Database.shared().create(),
                folder.resolve("never"),
                "--oddbeacon.accounts=true",
                "--oddbeacon.locations.roots=" + folder,
                "--oddbeacon.quotas.requests=1000000");
        administratorHere = administrator(restricted, folder.resolve("restricted"));
        Requests administratorThere = administrator(never, folder.resolve("never"));
        for (Requests administrator : List.of(administratorHere, administratorThere)) {
            register(administrator, "tide", open.path(), "", List.of("everybody"));
        }
        register(administratorHere, WORD, hidden.path(), WORD, List.of());
        register(administratorHere, "gone" + WORD, folder.resolve("gone-" + WORD), WORD, List.of());
        cookieHere = person(restricted, administratorHere, "stranger");
        strangerHere = restricted.browser(cookieHere);
        strangerThere = never.browser(person(never, administratorThere, "stranger"));
        for (Requests administrator : List.of(administratorHere, administratorThere)) {
            saveSearch(administrator);
        }
        for (Requests stranger : List.of(strangerHere, strangerThere)) {
            assertThat(stranger.put("/api/v1/watches/tide", "{}").status()).isEqualTo(200);
        }
    }

    @AfterAll
    static void stop() {
        restricted.close();
        never.close();
    }

    private static Requests administrator(TestService service, Path data) throws IOException {
        String body = "{\"secret\":\"" + Files.readString(data.resolve("first-sign-in"))
                + "\",\"name\":\"ada\",\"password\":\"" + PASSWORD + "\"}";
        return service.browser(service.post("/api/v1/session/first", "application/json", body)
                .cookie()
                .orElseThrow());
    }

    /** Somebody of another team. @return the cookie */
    private static String person(TestService service, Requests administrator, String name) {
        administrator.post(
                "/api/v1/accounts", new NewAccount(name, "A stranger", "maintainer", List.of("others"), PASSWORD));
        return service.with(Map.of())
                .post("/api/v1/session", new SignIn(name, PASSWORD))
                .cookie()
                .orElseThrow()
                .replaceAll(";.*", "");
    }

    private static void register(
            Requests administrator, String name, Path location, String label, List<String> visibleTo) {
        Answer added = administrator.post(
                "/api/v1/repositories",
                new NewRepository(
                        name,
                        label.isEmpty() ? null : "The " + label,
                        location.toString(),
                        label.isEmpty() || name.startsWith("gone") ? List.of() : List.of("main", WORD, "v-" + WORD),
                        label.isEmpty() ? List.of() : List.of(label),
                        visibleTo));
        assertThat(added.status()).as(added.body()).isEqualTo(201);
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (true) {
            JsonNode one = administrator.get("/api/v1/repositories/" + name).json();
            if (one.path("state").asString().equals("failed")
                    || one.path("state").asString().equals("ready")
                            && one.path("history").path("complete").asBoolean()
                            && administrator
                                    .get("/api/v1/search/commits", "repo", name)
                                    .json()
                                    .path("index")
                                    .path("complete")
                                    .asBoolean()) {
                return;
            }
            assertThat(System.nanoTime()).as(one.toString()).isLessThan(deadline);
        }
    }

    private record Operation(String method, String path, JsonNode description) {
        @Override
        public String toString() {
            return method + " " + path;
        }
    }

    /** Everything that reads. What writes is asked in other tests. */
    private static List<Operation> operations() {
        List<Operation> operations = new ArrayList<>();
        strangerHere
                .get("/api/v1/openapi.json")
                .json()
                .path("paths")
                .properties()
                .forEach(path -> path.getValue()
                        .properties()
                        .forEach(method -> operations.add(new Operation(
                                method.getKey().toUpperCase(Locale.ROOT), path.getKey(), method.getValue()))));
        Set<String> reading = Set.of("/api/v1/places", "/api/v1/archive", "/api/v1/exclusion-sets/preview");
        operations.removeIf(one -> one.path.endsWith("/events")
                || !one.method.equals("GET") && !one.path.startsWith("/api/v1/search") && !reading.contains(one.path));
        return operations;
    }

    /** One that finds what is hidden, with a check of that. */
    private static void saveSearch(Requests administrator) {
        assertThat(administrator
                        .put(
                                "/api/v1/saved-searches/tide",
                                new SavedSearch.Change("everybody", "", "lines", Map.of("q", List.of("tide")), null))
                        .status())
                .isEqualTo(200);
        assertThat(administrator
                        .put("/api/v1/saved-searches/tide/checks/tide", "")
                        .status())
                .isEqualTo(200);
    }

    private static String value(String name, Random random) {
        List<String> words = List.of(
                WORD,
                WORD.substring(0, 5),
                "x" + WORD.substring(1),
                WORD + "/a.txt",
                "v-" + WORD,
                "The " + WORD,
                "tide",
                "tide/a.txt",
                "a.txt",
                "main",
                "*");
        Map<String, List<String>> sensible = Map.ofEntries(
                Map.entry("name", List.of("tide", "tide", WORD, "gone" + WORD)),
                Map.entry("search", List.of("tide", "tide", WORD)),
                Map.entry("check", List.of("tide", WORD)),
                Map.entry("with", List.of("tide", "2020", WORD)),
                Map.entry("of", List.of("everybody", "repository:" + WORD)),
                Map.entry("repository", List.of("tide", WORD)),
                Map.entry("id", List.of("main", WORD)),
                Map.entry("reading", List.of("plain", "regex", "expression", "fragments", "glob")),
                Map.entry("limit", List.of("1", "50")),
                Map.entry("context", List.of("0", "3")),
                Map.entry("line", List.of("1", "2")),
                Map.entry("column", List.of("1", "7")),
                Map.entry("counts", List.of("exact")),
                Map.entry(
                        "q",
                        List.of(
                                "tide",
                                "Gauge",
                                WORD,
                                WORD.substring(0, 4),
                                "read" + WORD,
                                "x" + WORD.substring(1),
                                "low")));
        List<String> values = sensible.getOrDefault(name, words);
        return values.get(random.nextInt(values.size()));
    }

    private static String asked(Requests who, String method, String path, List<String> parameters, String body) {
        Answer answer = method.equals("GET")
                ? who.get(path, parameters.toArray(String[]::new))
                : who.post(path, path.endsWith("/places") ? "text/plain" : "application/json", body);
        return answer.status() + " " + answer.body().replaceAll(OWN, "\"$1\":0");
    }

    @Test
    void isToldToNobodyWhoMayNotSeeIt() {
        List<Operation> operations = operations();
        assertThat(operations).hasSizeGreaterThan(35);
        Map<String, String> differences = new LinkedHashMap<>();
        Set<String> answered = new TreeSet<>();
        Random random = new Random(8);
        for (int i = 0; i < REQUESTS; i++) {
            Operation operation = operations.get(i % operations.size());
            String path = operation.path;
            List<String> parameters = new ArrayList<>();
            for (JsonNode parameter : operation.description.path("parameters")) {
                String name = parameter.path("name").asString();
                if (parameter.path("in").asString().equals("path")) {
                    path = path.replace("{" + name + "}", value(name, random).replace(" ", "%20"));
                } else if (parameter.path("required").asBoolean() || random.nextInt(5) == 0) {
                    parameters.add(name);
                    parameters.add(value(name, random));
                }
            }
            String body = path.endsWith("/places")
                    ? WORD + "/a.txt:1\nat " + WORD + ".read(" + WORD + ".java:1)\nsrc/Gauge.java:1\n"
                    : "{\"patterns\":[\"**/" + WORD + "*\",\"a.txt\"]}";
            String here = asked(strangerHere, operation.method, path, parameters, body);
            String there = asked(strangerThere, operation.method, path, parameters, body);
            if (here.startsWith("200")) {
                answered.add(operation.toString());
            }
            if (!here.equals(there)) {
                differences.putIfAbsent(operation.toString(), parameters + "\n" + here + "\n" + there);
            }
        }
        assertThat(differences).isEmpty();
        assertThat(answered).as("operations that answered").hasSizeGreaterThan(25);
    }

    @Test
    void isInNoEvent() throws Exception {
        assertThat(restricted.with(Map.of()).get("/api/v1/events").status()).isEqualTo(401);
        try (Stream here = new Stream(restricted, cookieHere)) {
            here.await("listening");
            administratorHere.post("/api/v1/repositories/" + WORD + "/refresh", "application/json", "");
            administratorHere.post("/api/v1/repositories/gone" + WORD + "/refresh", "application/json", "");
            administratorHere.put("/api/v1/repositories/" + WORD + "/viewers", "{\"visibleTo\":[\"person:ada\"]}");
            administratorHere.post("/api/v1/repositories/tide/refresh", "application/json", "");
            here.await("\"name\":\"tide\"");
            assertThat(here.text()).doesNotContain(WORD);
        }
    }

    @Test
    void isNotEvenFeltByWhoeverAsksForAnOverviewAlone() throws Exception {
        JsonNode before = strangerHere.get("/api/v1/overview").json();
        try (Stream here = new Stream(restricted, cookieHere, "?about=overview")) {
            here.await("listening");
            administratorHere.post("/api/v1/repositories/" + WORD + "/refresh", "application/json", "");
            Waiting.until(() -> administratorHere
                    .get("/api/v1/repositories/" + WORD)
                    .json()
                    .path("state")
                    .asString()
                    .equals("ready"));
            assertThat(here.text()).as("that something has changed").doesNotContain("overview");
            administratorHere.post("/api/v1/repositories/tide/refresh", "application/json", "");
            here.await("event:overview");
            assertThat(here.text()).doesNotContain("tide").doesNotContain(WORD);
        }
        assertThat(strangerHere.get("/api/v1/overview").json().path("repositories"))
                .isEqualTo(before.path("repositories"));
        assertThat(administratorHere
                        .get("/api/v1/overview")
                        .json()
                        .path("repositories")
                        .asInt())
                .isGreaterThan(before.path("repositories").asInt());
    }

    @Test
    void isInNoMetric() {
        for (String path : List.of("/actuator", "/actuator/metrics", "/actuator/health", "/api/v1/status")) {
            for (Requests who : List.of(strangerHere, restricted.with(Map.of()))) {
                assertThat(who.get(path).body()).as(path).doesNotContain(WORD);
            }
        }
        assertThat(strangerHere.get("/actuator/metrics").status()).isEqualTo(403);
        assertThat(strangerHere.get("/actuator/health").body()).contains("UP").doesNotContain("components");
    }

    /** Somebody who listens to events. */
    private static final class Stream implements AutoCloseable {
        private final List<String> lines = new CopyOnWriteArrayList<>();
        private final HttpClient client = HttpClient.newHttpClient();
        private final CompletableFuture<Void> end;

        Stream(TestService service, String cookie) {
            this(service, cookie, "");
        }

        Stream(TestService service, String cookie, String about) {
            HttpRequest request = HttpRequest.newBuilder(URI.create(service.address() + "/api/v1/events" + about))
                    .header("Cookie", cookie)
                    .build();
            end = client.sendAsync(request, HttpResponse.BodyHandlers.ofLines())
                    .thenAcceptAsync(response -> response.body().forEach(lines::add));
        }

        void await(String part) throws InterruptedException {
            long deadline = System.nanoTime() + Duration.ofSeconds(30).toNanos();
            while (!text().contains(part)) {
                assertThat(System.nanoTime()).as(text()).isLessThan(deadline);
                Thread.sleep(20);
            }
        }

        String text() {
            return String.join("\n", lines);
        }

        void awaitEnd() throws Exception {
            end.get(30, TimeUnit.SECONDS);
        }

        @Override
        public void close() {
            client.shutdownNow();
        }
    }

    @Test
    void streamsEndWithWhateverTheyWereOpenedWith() throws Exception {
        String leaver = person(restricted, administratorHere, "leaver");
        try (Stream stream = new Stream(restricted, leaver)) {
            stream.await("listening");
            administratorHere.delete("/api/v1/accounts/leaver");
            stream.awaitEnd();
        }
        String everywhere = person(restricted, administratorHere, "everywhere");
        try (Stream stream = new Stream(restricted, everywhere)) {
            stream.await("listening");
            restricted.browser(everywhere).delete("/api/v1/session/all");
            stream.awaitEnd();
        }
        assertThat(restricted.browser(everywhere).get("/api/v1/repositories").status())
                .as("a cookie that somebody has kept")
                .isEqualTo(401);
    }
}
