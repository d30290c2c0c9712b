package dev.oddbeacon.server.following;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** A repository whose host says that it has another address now. */
class MovedTest {
    private static final int FOR_GOOD = 301;
    private static final int FOR_NOW = 302;

    private record Answer(int status, String location) {}

    @TempDir
    private Path folder;

    private final Map<String, Answer> redirects = new ConcurrentHashMap<>(); // by first part of the path
    private HttpServer host;
    private TestService service;
    private TestRepository repository;

    @BeforeEach
    void start() throws IOException {
        repository = TestRepository.create(folder.resolve("new"))
                .write("a.txt", "first\n")
                .commit("One");
        repository.git("update-server-info");
        host = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        host.createContext("/", exchange -> {
            String path = exchange.getRequestURI().getPath();
            String first = path.split("/")[1];
            Path file = folder.resolve(path.substring(1));
            try (exchange) {
                if (redirects.containsKey(first)) {
                    exchange.getResponseHeaders()
                            .add(
                                    "Location",
                                    redirects.get(first).location + path.substring(path.indexOf('/', 1)) + "?"
                                            + exchange.getRequestURI().getQuery());
                    exchange.sendResponseHeaders(redirects.get(first).status, -1);
                } else if (Files.isRegularFile(file)) {
                    byte[] bytes = Files.readAllBytes(file);
                    exchange.sendResponseHeaders(200, bytes.length == 0 ? -1 : bytes.length);
                    exchange.getResponseBody().write(bytes);
                } else {
                    exchange.sendResponseHeaders(404, -1);
                }
            }
        });
        host.start();
        service = TestService.start(
                Database.shared().create(), folder.resolve("data"), "--oddbeacon.locations.hosts=127.0.0.1,localhost");
    }

    @AfterEach
    void stop() {
        service.close();
        host.stop(0);
    }

    private String address(String name) {
        return "http://127.0.0.1:" + host.getAddress().getPort() + "/" + name + "/.git";
    }

    private JsonNode register(String name) {
        service.post(
                "/api/v1/repositories",
                "application/json",
                "{\"name\":\"gauge\",\"location\":\"" + address(name) + "\"}");
        Waiting.until(() ->
                !List.of("waiting", "indexing").contains(info().path("state").asString()));
        return info();
    }

    private JsonNode info() {
        return service.get("/api/v1/repositories/gauge").json();
    }

    @Test
    void isFetchedFromThereAndThatIsOnRecord() {
        redirects.put("old", new Answer(FOR_GOOD, "/new"));
        JsonNode now = register("old");
        assertThat(now.path("state").asString()).isEqualTo("ready");
        assertThat(now.path("location").asString()).isEqualTo(address("new"));
        JsonNode change = service.get("/api/v1/records-of-change", "action", "repository-moved")
                .json()
                .path("changes")
                .path(0);
        assertThat(change.path("subject").asString())
                .isEqualTo("gauge: from " + address("old") + " to " + address("new"));
    }

    @Test
    void isNotFollowedToAnotherHost() {
        redirects.put(
                "old",
                new Answer(FOR_GOOD, "http://localhost:" + host.getAddress().getPort() + "/new"));
        JsonNode now = register("old");
        assertThat(now.path("state").asString()).isEqualTo("failed");
        assertThat(now.path("location").asString()).isEqualTo(address("old"));
        assertThat(now.path("problem").asString()).doesNotContain("localhost");
    }

    @Test
    void isNotFollowedWhereItIsOnlyForNow() {
        redirects.put("old", new Answer(FOR_NOW, "/new"));
        assertThat(register("old").path("state").asString()).isEqualTo("failed");
    }

    @Test
    void thatMovesInACircleFailsInTheEnd() {
        redirects.put("old", new Answer(FOR_GOOD, "/other"));
        redirects.put("other", new Answer(FOR_GOOD, "/old"));
        assertThat(register("old").path("state").asString()).isEqualTo("failed");
    }
}
