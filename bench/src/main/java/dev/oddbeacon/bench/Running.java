package dev.oddbeacon.bench;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.Outline;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.ServiceStatus;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import tools.jackson.databind.json.JsonMapper;

/** A service that the launcher has started. */
final class Running implements AutoCloseable {
    private static final int STOP_SECONDS = 60;
    private static final double TICKS_PER_SECOND = 100; // of /proc, on every Linux
    private static final int CACHE_SECONDS = 180;
    private static final String LAST_OF_DEMO = "berth-planner";
    private static final String KEEPER = "keeper";
    private static final String PASSWORD = "four old anchors";
    private static final JsonMapper JSON = JsonMapper.shared();

    static {
        System.setProperty("http.maxConnections", "64"); // kept open, so that no caller of many waits for a new one
    }

    private final Process launcher;
    private final Path data;
    private final URI address;
    private final HttpClient http = HttpClient.newHttpClient();
    private String cookie = "";

    private Running(Process launcher, Path data) throws IOException {
        this.launcher = launcher;
        this.data = data;
        this.address = URI.create(Files.readString(data.resolve("address")).strip());
    }

    static Running start(Path launcher, Path data) throws IOException, InterruptedException {
        return start(launcher, data, Map.of());
    }

    /** @param settings in the environment */
    static Running start(Path launcher, Path data, Map<String, String> settings)
            throws IOException, InterruptedException {
        return start(
                launcher, data, "yes", List.of(),
                settings); // it was built to get here, and making caches would disturb
    }

    /** Starts one where people sign in, and signs in as its first administrator. @param roots of its repositories */
    static Running startForTeam(Path launcher, Path data, Path roots) throws IOException, InterruptedException {
        return startForTeam(launcher, data, roots, Map.of());
    }

    /** The same with more settings. */
    static Running startForTeam(Path launcher, Path data, Path roots, Map<String, String> more)
            throws IOException, InterruptedException {
        Map<String, String> settings = new HashMap<>(
                Map.of("ODDBEACON_LOCATIONS_ROOTS", roots.toString(), "ODDBEACON_QUOTAS_REQUESTS", "100000000"));
        settings.putAll(more);
        Running service = start(launcher, data, "yes", List.of("--with-accounts"), settings);
        Path secret = data.resolve("first-sign-in");
        if (Files.exists(secret)) {
            service.signIn("first", Map.of("secret", Files.readString(secret), "name", KEEPER, "password", PASSWORD));
        } else {
            service.signIn("", Map.of("name", KEEPER, "password", PASSWORD));
        }
        return service;
    }

    /** Makes an account, and the teams that it is in. */
    void account(String name, List<String> teams) throws IOException, InterruptedException {
        post("api/v1/accounts", JSON.writeValueAsString(Map.of("name", name, "teams", teams, "password", PASSWORD)));
    }

    /** Is somebody from now on, who has a role and teams. */
    void become(String name, List<String> teams) throws IOException, InterruptedException {
        account(name, teams);
        signIn("", Map.of("name", name, "password", PASSWORD));
    }

    private void signIn(String how, Map<String, String> who) throws IOException, InterruptedException {
        HttpResponse<String> response = http.send(
                HttpRequest.newBuilder(address.resolve("api/v1/session" + (how.isEmpty() ? "" : "/" + how)))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(who)))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        cookie = response.headers()
                .firstValue("Set-Cookie")
                .orElseThrow(() -> new IOException(response.body()))
                .replaceAll(";.*", "");
    }

    /** A request of whoever one is. */
    private HttpRequest.Builder request(String path) {
        HttpRequest.Builder request = HttpRequest.newBuilder(address.resolve(path));
        return cookie.isEmpty()
                ? request
                : request.header("Cookie", cookie)
                        .header("Origin", address.toString().replaceAll("/$", ""));
    }

    /** Has the launcher make the caches that it makes once for each build, and waits for them. */
    static void prepare(Path launcher, Path data) throws IOException, InterruptedException {
        try (Running _ = start(launcher, data, "no", List.of(), Map.of())) {
            for (int waited = 0;
                    waited < CACHE_SECONDS && !(hasCache(launcher, "client") && hasCache(launcher, "server"));
                    waited++) {
                Thread.sleep(1_000);
            }
        }
    }

    private static boolean hasCache(Path launcher, String part) throws IOException {
        Path cache = launcher.resolveSibling(part + "/target/" + part + ".aot");
        Path jar = launcher.resolveSibling(part + "/target/oddbeacon-" + part + ".jar");
        return Files.exists(cache) && Files.getLastModifiedTime(cache).compareTo(Files.getLastModifiedTime(jar)) > 0;
    }

    /**
     * Starts the demo, and waits until all of it is indexed.
     *
     * @param machines that it is a cluster of; 1 for one service
     * @param settings as variables of the environment
     */
    static Running startDemo(Path launcher, Path data, int machines, Map<String, String> settings)
            throws IOException, InterruptedException {
        List<String> options = machines == 1 ? List.of() : List.of("--machines", Integer.toString(machines));
        Running demo = start(launcher, data, "yes", "demo", options, settings);
        while (!demo.isRegistered(LAST_OF_DEMO)) {
            Thread.sleep(500);
        }
        demo.awaitAllReady();
        return demo;
    }

    private static Running start(
            Path launcher, Path data, String prebuilt, List<String> options, Map<String, String> settings)
            throws IOException, InterruptedException {
        return start(launcher, data, prebuilt, "serve", options, settings);
    }

    private static Running start(
            Path launcher, Path data, String prebuilt, String kind, List<String> options, Map<String, String> settings)
            throws IOException, InterruptedException {
        List<String> command =
                new ArrayList<>(List.of("sh", launcher.toString(), kind, "--data", data.toString(), "--port", "0"));
        command.addAll(options);
        ProcessBuilder builder = new ProcessBuilder(command)
                .redirectOutput(ProcessBuilder.Redirect.INHERIT)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .redirectInput(new File("/dev/null"));
        // A search that counts to the end must not be stopped for taking long.
        builder.environment().merge("ODDBEACON_JAVA_OPTIONS", "-Doddbeacon.search-time=10m", (a, b) -> a + " " + b);
        builder.environment().put("ODDBEACON_PREBUILT", prebuilt);
        builder.environment().putAll(settings);
        Files.deleteIfExists(data.resolve("address"));
        Process process = builder.start();
        while (!Files.exists(data.resolve("address"))) {
            if (!process.isAlive()) {
                throw new IOException("the service does not start");
            }
            Thread.sleep(100);
        }
        return new Running(process, data);
    }

    Path data() {
        return data;
    }

    URI address() {
        return address;
    }

    /** Milliseconds from sending a search to having read its answer. */
    double millis(String parameters) throws IOException {
        return millisOf("api/v1/search/lines?" + parameters);
    }

    /**
     * Measures any request in the same way: on a connection that is open, by the thread that asks, so that no handing
     * over between threads of ours is measured with it.
     */
    double millisOf(String path) throws IOException {
        long start = System.nanoTime();
        HttpURLConnection connection =
                (HttpURLConnection) address.resolve(path).toURL().openConnection();
        if (!cookie.isEmpty()) {
            connection.setRequestProperty("Cookie", cookie);
        }
        int status = connection.getResponseCode();
        try (InputStream answer = status < 300 ? connection.getInputStream() : connection.getErrorStream()) {
            byte[] body = answer == null ? new byte[0] : answer.readAllBytes();
            if (status >= 300) {
                throw new IOException(path + ": " + status + " " + new String(body, StandardCharsets.UTF_8));
            }
        }
        return (System.nanoTime() - start) / 1e6;
    }

    double post(String path, String json) throws IOException, InterruptedException {
        return sent(request(path)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(json))
                .build());
    }

    void put(String path, String json) throws IOException, InterruptedException {
        sent(request(path)
                .header("Content-Type", "application/json")
                .PUT(HttpRequest.BodyPublishers.ofString(json))
                .build());
    }

    void delete(String path) throws IOException, InterruptedException {
        sent(request(path).DELETE().build());
    }

    private double sent(HttpRequest request) throws IOException, InterruptedException {
        long start = System.nanoTime();
        HttpResponse<byte[]> response = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
        if (response.statusCode() >= 300) {
            throw new IOException(request.uri() + ": " + new String(response.body(), StandardCharsets.UTF_8));
        }
        return (System.nanoTime() - start) / 1e6;
    }

    void awaitReady(String name) throws IOException, InterruptedException {
        while (!repository(name).state().equals("ready")) {
            Thread.sleep(100);
        }
    }

    void awaitAllReady() throws IOException, InterruptedException {
        while (status().indexing() > 0) {
            Thread.sleep(500);
        }
    }

    void refresh(String name) throws IOException, InterruptedException {
        http.send(
                request("api/v1/repositories/" + name + "/refresh")
                        .POST(HttpRequest.BodyPublishers.noBody())
                        .build(),
                HttpResponse.BodyHandlers.discarding());
    }

    void remove(String name) throws IOException, InterruptedException {
        delete("api/v1/repositories/" + name);
    }

    LinesAnswer search(String parameters) throws IOException, InterruptedException {
        return get("api/v1/search/lines?" + parameters, LinesAnswer.class);
    }

    /** The names that a file declares; none if it has no outline. */
    List<String> outline(String path) throws IOException, InterruptedException {
        String address = "api/v1/repositories/" + Indexing.NAME + "/outline?" + parameter("path", path);
        HttpResponse<byte[]> response = http.send(request(address).build(), HttpResponse.BodyHandlers.ofByteArray());
        return response.statusCode() == 200
                ? JSON.readValue(response.body(), Outline.class).symbols().stream()
                        .map(Outline.Symbol::name)
                        .toList()
                : List.of();
    }

    CommitsAnswer commits(String parameters) throws IOException, InterruptedException {
        return get("api/v1/search/commits?" + parameters, CommitsAnswer.class);
    }

    boolean isRegistered(String name) throws IOException, InterruptedException {
        HttpRequest request = request("api/v1/repositories/" + name).build();
        return http.send(request, HttpResponse.BodyHandlers.discarding()).statusCode() != 404;
    }

    static String parameter(String name, String value) {
        return name + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8);
    }

    ServiceStatus status() throws IOException, InterruptedException {
        return get("api/v1/status", ServiceStatus.class);
    }

    RepositoryInfo repository(String name) throws IOException, InterruptedException {
        return get("api/v1/repositories/" + name, RepositoryInfo.class);
    }

    void add(String name, Path location) throws IOException, InterruptedException {
        add(name, location, null);
    }

    /** @param viewers null where nobody signs in */
    void add(String name, Path location, List<String> viewers) throws IOException, InterruptedException {
        String body = JSON.writeValueAsString(
                new NewRepository(name, null, location.toString(), List.of(), List.of(), viewers));
        post("api/v1/repositories", body);
    }

    /** @param path of this service, or a whole address */
    <T> T get(String path, Class<T> type) throws IOException, InterruptedException {
        return JSON.readValue(text(path), type);
    }

    /** @param path of this service, or a whole address */
    String text(String path) throws IOException, InterruptedException {
        HttpResponse<String> response =
                http.send(request(path).build(), HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
        if (response.statusCode() != 200) {
            throw new IOException(path + ": " + response.body());
        }
        return response.body();
    }

    /** All that the launcher has started. */
    Stream<ProcessHandle> processes() {
        return launcher.descendants();
    }

    /** Kills the launcher, and nothing that it has started. */
    void kill() {
        launcher.destroyForcibly();
        launcher.onExit().join();
    }

    /** Resident memory of the service, in bytes. */
    long residentBytes() throws IOException {
        return Files.readAllLines(Path.of("/proc/" + pid() + "/status")).stream()
                .filter(line -> line.startsWith("RssAnon"))
                .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) * 1024)
                .sum();
    }

    /** Processor time that the service has taken so far, with the processes that it has run, in seconds. */
    double processorSeconds() throws IOException {
        String status = Files.readString(Path.of("/proc/" + pid() + "/stat"));
        String[] fields = status.substring(status.lastIndexOf(')') + 2).split(" ");
        double ticks = 0;
        for (int field = 11; field <= 14; field++) { // its own and theirs, for users and in the kernel
            ticks += Long.parseLong(fields[field]);
        }
        return ticks / TICKS_PER_SECOND;
    }

    /** The process of the service itself. */
    long pid() {
        return launcher.descendants()
                .filter(child -> child.info().commandLine().orElse("").contains("oddbeacon-server.jar"))
                .findFirst()
                .orElseThrow()
                .pid();
    }

    @Override
    public void close() {
        List<ProcessHandle> started = Stream.concat(Stream.of(launcher.toHandle()), launcher.descendants())
                .toList();
        launcher.destroy();
        for (ProcessHandle process : started) { // the data folder is free only when all of them have gone
            process.onExit()
                    .completeOnTimeout(process, STOP_SECONDS, TimeUnit.SECONDS)
                    .join();
        }
    }
}
