package dev.oddbeacon.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * Every operation and parameter of the OpenAPI document, with values that nobody means well by: no answer says that the
 * service failed, none takes longer than it may, and afterwards it answers as before.
 */
class HostileRequestsTest {
    private static final int REQUESTS = 10_000;
    private static final int THREADS = 6;
    private static final Duration LONGEST = Duration.ofSeconds(15);

    /** What a parameter may mean, so that requests get past the first check now and then. */
    private static final Map<String, List<String>> SENSIBLE = Map.ofEntries(
            Map.entry("name", List.of("tide", "tide", "tide", "gone")),
            Map.entry("id", List.of("main", "HEAD~1", "main~99999999", "0000000000000000000000000000000000000000")),
            Map.entry("q", List.of("tide", "t*", "low or high", "near(3, tide, gauge)", "symbol(x)", "[a-z]+e")),
            Map.entry("reading", List.of("plain", "regex", "expression", "glob", "fragments")),
            Map.entry("path", List.of("a.txt", "src", "src/deep.java", "big.bin", "")),
            Map.entry("rev", List.of("main", "", "HEAD", "main^", "main^{tree}", "main@{1}", "main:a.txt")),
            Map.entry("from", List.of("main~1", "main", "")),
            Map.entry("to", List.of("main", "")),
            Map.entry("repository", List.of("tide")),
            Map.entry("file", List.of("tide/a.txt", "tide/src/deep.java")),
            Map.entry("limit", List.of("1", "1000")),
            Map.entry("context", List.of("0", "50")),
            Map.entry("cursor", List.of("0", "2147483647", "-1")),
            Map.entry("line", List.of("1", "2147483647")),
            Map.entry("column", List.of("1", "0")));

    /** Encoded already. */
    private static final List<String> HOSTILE = List.of(
            "",
            "%00",
            "%ff%fe",
            "%ed%a0%80",
            "%f0%9f%98%80",
            "%e2%80%ae%e2%81%a6",
            "%0a%0d%1b%5b31m",
            "-1",
            "2147483648",
            "99999999999999999999",
            "1e9",
            "NaN",
            "true",
            "..%2f..%2f..%2fetc%2fpasswd",
            "%2f".repeat(4_000),
            "a%2f".repeat(1_000),
            "*a".repeat(40) + "zq.*",
            "*".repeat(300),
            "%28".repeat(1_500),
            "%28a*%29*b",
            "%28a%7ca%29%7b1000%7d",
            "%5b".repeat(500),
            "%5c",
            "not%20".repeat(1_000),
            "%28not%20".repeat(300),
            "%22".repeat(200),
            "a".repeat(4_000),
            "%f0%9d%94%b8".repeat(900),
            "main~9".repeat(600),
            "@%7b-1%7d",
            "HEAD%5e%7b%2f.*%7d",
            "%3cscript%3e",
            "%25s%25n",
            "=cmd%7c'%20%2fC%20calc'!A0",
            "near(9999999999,a,b)",
            "size(over:%209999999999999999999g)",
            "changed(after:%20999999999d)",
            "-1-1-1-1",
            "0-0-0-0-0");

    private static final HttpClient CLIENT = HttpClient.newHttpClient();
    private static TestService service;
    private static Path folder;

    @BeforeAll
    static void start(@TempDir Path temporary) throws IOException {
        folder = temporary;
        TestRepository repository = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "low tide\nhigh tide\n")
                .commit("Gauge")
                .write("src/deep.java", "class Tide { void gauge() { int a = 1; } }\n")
                .write("big.bin", "\0".repeat(5_000))
                .commit("Deep");
        service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("tide", repository.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private record Operation(String method, String path, JsonNode description) {}

    private static List<Operation> operations() {
        JsonNode document = service.get("/api/v1/openapi.json").json();
        List<Operation> operations = new ArrayList<>();
        document.path("paths")
                .properties()
                .forEach(path -> path.getValue()
                        .properties()
                        .forEach(method -> operations.add(new Operation(
                                method.getKey().toUpperCase(Locale.ROOT), path.getKey(), method.getValue()))));
        operations.removeIf(one -> one.path.endsWith("/events") // which does not end
                || one.path.endsWith("/verify") // which takes its time
                || one.path.endsWith("/refresh"));
        return operations;
    }

    private static String value(String name, Random random) {
        List<String> sensible = SENSIBLE.getOrDefault(name, List.of());
        return !sensible.isEmpty() && random.nextInt(3) > 0
                ? URLEncoder.encode(sensible.get(random.nextInt(sensible.size())), StandardCharsets.UTF_8)
                        .replace("+", "%20")
                : HOSTILE.get(random.nextInt(HOSTILE.size()));
    }

    private static HttpRequest request(Operation operation, Random random) {
        String path = operation.path;
        List<String> query = new ArrayList<>();
        for (JsonNode parameter : operation.description.path("parameters")) {
            String name = parameter.path("name").asString();
            if (parameter.path("in").asString().equals("path")) {
                String segment = value(name, random);
                path = path.replace("{" + name + "}", segment.isEmpty() ? "x" : segment);
            } else if (parameter.path("required").asBoolean() ? random.nextInt(10) > 0 : random.nextInt(4) == 0) {
                query.add(name + "=" + value(name, random));
            }
        }
        String address = service.address() + path + (query.isEmpty() ? "" : "?" + String.join("&", query));
        HttpRequest.Builder builder =
                HttpRequest.newBuilder(URI.create(address)).timeout(Duration.ofSeconds(60));
        if (random.nextInt(20) == 0) {
            builder.header(
                    "Accept", List.of("text/x-diff", "text/csv", "*/*;q=x", "a").get(random.nextInt(4)));
        }
        if (operation.method.equals("GET")) {
            return builder.GET().build();
        }
        return builder.header("Content-Type", type(random))
                .method(operation.method, HttpRequest.BodyPublishers.ofString(body(random)))
                .build();
    }

    private static String type(Random random) {
        List<String> types = List.of(
                "application/json",
                "application/json",
                "application/yaml",
                "text/plain",
                "application/x-www-form-urlencoded",
                "multipart/form-data",
                "text/xml",
                "application/json;charset=utf-77");
        return types.get(random.nextInt(types.size()));
    }

    private static String body(Random random) {
        String text = HOSTILE.get(random.nextInt(HOSTILE.size())).replace("\"", "");
        return switch (random.nextInt(9)) {
            case 0 -> "";
            case 1 -> "[".repeat(100_000);
            case 2 -> "{\"name\":\"" + text + "\",\"location\":\"/nowhere\"}";
            case 3 ->
                "{\"name\":\"x" + random.nextInt(3) + "\",\"location\":\"" + folder.resolve("none") + text + "\"}";
            case 4 -> "{\"name\":\"x\",\"location\":\"--upload-pack=" + text + "\"}";
            case 5 -> "exclusion-sets:\n  x:\n    patterns: [\"" + text + "\"]\n";
            case 6 -> "a: &a [x,x,x,x]\nb: &b [*a,*a,*a,*a]\nc: [*b,*b,*b,*b]\n";
            case 7 -> "a.".repeat(9_000) + "(a:1) " + text + ":1";
            default -> "{\"patterns\":[" + "\"**/*a\",".repeat(50) + "\"" + text + "\"]}";
        };
    }

    @Test
    void areAnsweredAsMistakesOfTheCallerInTime() throws Exception {
        List<Operation> operations = operations();
        assertThat(operations).hasSizeGreaterThan(25);
        List<String> wrong = new ArrayList<>();
        try (ExecutorService threads = Executors.newFixedThreadPool(THREADS)) {
            List<Future<List<String>>> running = new ArrayList<>();
            for (int thread = 0; thread < THREADS; thread++) {
                Random random = new Random(31L * thread + 5);
                running.add(threads.submit(() -> {
                    List<String> found = new ArrayList<>();
                    for (int i = 0; i < REQUESTS / THREADS; i++) {
                        Operation operation = operations.get(random.nextInt(operations.size()));
                        HttpRequest request = request(operation, random);
                        boolean removesTide = operation.method.equals("DELETE")
                                && request.uri().getPath().endsWith("/tide");
                        if (!removesTide) {
                            complaint(request).ifPresent(found::add);
                        }
                    }
                    return found;
                }));
            }
            for (Future<List<String>> one : running) {
                wrong.addAll(one.get());
            }
        }
        assertThat(wrong.stream().distinct().limit(20).collect(Collectors.joining("\n")))
                .isEmpty();
        TestService.Answer answer = service.get("/api/v1/search/lines", "q", "tide");
        assertThat(answer.json().path("counts").path("hits").asInt()).isEqualTo(3);
    }

    private static Optional<String> complaint(HttpRequest request) throws InterruptedException {
        String shown = request.method() + " " + request.uri();
        long start = System.nanoTime();
        try {
            HttpResponse<String> response = sent(request);
            long took = System.nanoTime() - start;
            if (response.statusCode() >= 500) {
                return Optional.of(response.statusCode() + " " + shown.substring(0, Math.min(300, shown.length())) + " "
                        + response.body()
                                .substring(0, Math.min(200, response.body().length())));
            }
            return took > LONGEST.toNanos() ? Optional.of(took / 1_000_000 + " ms " + shown) : Optional.empty();
        } catch (IOException e) {
            return Optional.of(e + " " + shown.substring(0, Math.min(300, shown.length())));
        }
    }

    /** A connection may be closed between two requests, which is nobody's fault: then on another one. */
    private static HttpResponse<String> sent(HttpRequest request) throws IOException, InterruptedException {
        try {
            return CLIENT.send(request, HttpResponse.BodyHandlers.ofString());
        } catch (IOException e) {
            return CLIENT.send(request, HttpResponse.BodyHandlers.ofString());
        }
    }
}
