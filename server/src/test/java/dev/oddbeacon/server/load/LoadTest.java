package dev.oddbeacon.server.load;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.events.Events;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One caller who asks for too much, or never ends, is cut off; everybody else is answered as before. */
class LoadTest {
    private static final int LARGE = 3 << 20;

    private static TestService service;
    private static int port;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "low tide\n")
                .write("large.txt", "high tide\n".repeat(LARGE / 10))
                .write("picture.bin", "\0".repeat(1_900_000))
                .write("odd\\..\\..\\name.txt", "odd\n")
                .commit("Gauge");
        service = TestService.start(
                        Database.shared().create(),
                        folder.resolve("data"),
                        "--oddbeacon.largest-file=2MB",
                        "--oddbeacon.proxies=127.0.0.20",
                        "--server.tomcat.connection-timeout=3s")
                .add("tide", repository.path());
        port = URI.create(service.address()).getPort();
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    /** A connection from one of the machine's own addresses. */
    private static Socket connect(String from) throws IOException {
        Socket socket = new Socket();
        socket.bind(new InetSocketAddress(InetAddress.getByName(from), 0));
        socket.connect(new InetSocketAddress("127.0.0.1", port), 5_000);
        socket.setSoTimeout(30_000);
        return socket;
    }

    private static void send(Socket socket, String text) throws IOException {
        socket.getOutputStream().write(text.getBytes(StandardCharsets.UTF_8));
        socket.getOutputStream().flush();
    }

    /** The status of a search on a connection of its own. */
    private static int search(String from) throws IOException {
        try (Socket socket = connect(from)) {
            send(
                    socket,
                    "GET /api/v1/search/lines?q=tide HTTP/1.1\r\nHost: 127.0.0.1:" + port
                            + "\r\nConnection: close\r\n\r\n");
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return Integer.parseInt(answer.substring("HTTP/1.1 ".length(), "HTTP/1.1 200".length()));
        }
    }

    @Test
    void whoOpensManyConnectionsFindsNoMoreAndOthersDo() throws IOException {
        List<Socket> open = new ArrayList<>();
        try {
            for (int i = 0; i < Connections.MOST_OF_ONE_ADDRESS + 100; i++) {
                Socket socket = connect("127.0.0.7");
                send(socket, "GET / HTTP/1.1\r\nX: ");
                open.add(socket);
            }
            assertThat(search("127.0.0.8")).isEqualTo(200);
            Socket last = open.getLast();
            assertThat(assertTimeoutPreemptively(Duration.ofSeconds(5), () -> isClosed(last)))
                    .isTrue();
        } finally {
            for (Socket socket : open) {
                socket.close();
            }
        }
    }

    private static boolean isClosed(Socket socket) {
        try {
            return socket.getInputStream().read() < 0;
        } catch (IOException e) {
            return true; // reset
        }
    }

    @Test
    void theConnectionsOfAProxyAreManyPeoples() throws IOException {
        List<Socket> open = new ArrayList<>();
        try {
            for (int i = 0; i < Connections.MOST_OF_ONE_ADDRESS + 50; i++) {
                Socket socket = connect("127.0.0.20");
                send(socket, "GET / HTTP/1.1\r\nX: ");
                open.add(socket);
            }
            assertThat(search("127.0.0.20")).isEqualTo(200);
        } finally {
            for (Socket socket : open) {
                socket.close();
            }
        }
    }

    @Test
    void oneListenerHasSixtyFourStreams() throws IOException {
        List<Socket> open = new ArrayList<>();
        try {
            List<String> statuses = new ArrayList<>();
            for (int i = 0; i < 66; i++) {
                Socket socket = connect("127.0.0.21");
                send(socket, "GET /api/v1/events HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\n\r\n");
                statuses.add(new String(socket.getInputStream().readNBytes(12), StandardCharsets.UTF_8).substring(9));
                open.add(socket);
            }
            assertThat(statuses.subList(0, 64)).containsOnly("200");
            assertThat(statuses.subList(64, 66)).containsOnly("503");
        } finally {
            for (Socket socket : open) {
                socket.close();
            }
        }
    }

    /** Pages that were left hold no streams, although nothing happens that would be told. */
    @Test
    void whoHasLeftMakesRoomForOthers() throws IOException {
        for (int i = 0; i < 64; i++) {
            assertThat(listened("127.0.0.22")).isEqualTo("200");
        }
        Waiting.until(() -> {
            try {
                return listened("127.0.0.22").equals("200");
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    /** The status that somebody gets who listens to events, and leaves. */
    private static String listened(String from) throws IOException {
        try (Socket socket = connect(from)) {
            send(socket, "GET /api/v1/events HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\n\r\n");
            return new String(socket.getInputStream().readNBytes(12), StandardCharsets.UTF_8).substring(9);
        }
    }

    @Test
    void headersThatComeByteByByteAreCutOff() throws IOException {
        try (Socket socket = connect("127.0.0.9")) {
            send(socket, "GET / HTTP/1.1\r\nX: ");
            assertTimeoutPreemptively(Duration.ofSeconds(25), () -> {
                try {
                    while (true) {
                        send(socket, "x");
                        Thread.sleep(500);
                    }
                } catch (IOException e) {
                    return; // it was closed
                }
            });
        }
        assertThat(search("127.0.0.9")).isEqualTo(200);
    }

    @Test
    void listenersWhoDoNotReadHoldUpNobody() throws IOException {
        Events events = service.bean(Events.class);
        List<Socket> deaf = new ArrayList<>();
        try {
            for (int i = 0; i < 3; i++) {
                Socket socket = connect("127.0.0.10");
                send(socket, "GET /api/v1/events HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\n\r\n");
                assertThat(socket.getInputStream().read()).isEqualTo('H');
                deaf.add(socket);
            }
            assertTimeoutPreemptively(Duration.ofSeconds(10), () -> {
                for (int i = 0; i < 3_000; i++) {
                    events.send("news", Optional.empty(), List.of("x".repeat(10_000)));
                }
            });
            assertThat(search("127.0.0.11")).isEqualTo(200);
        } finally {
            for (Socket socket : deaf) {
                socket.close();
            }
        }
    }

    @Test
    void longReadsHoldUpNoSearch() throws Exception {
        LongReads reads = service.bean(LongReads.class);
        CountDownLatch end = new CountDownLatch(1);
        List<Thread> busy = new ArrayList<>();
        for (int i = 0; i < 50; i++) {
            busy.add(Thread.startVirtualThread(() -> {
                try {
                    reads.call(() -> {
                        while (end.getCount() > 0) {
                            Thread.onSpinWait();
                        }
                        return null;
                    });
                } catch (Exception e) {
                    throw new IllegalStateException(e);
                }
            }));
        }
        try {
            assertTimeoutPreemptively(
                    Duration.ofSeconds(5),
                    () -> assertThat(search("127.0.0.12")).isEqualTo(200));
        } finally {
            end.countDown();
        }
        for (Thread thread : busy) {
            thread.join();
        }
    }

    @Test
    void aFileBeyondTheLimitIsGivenByNoEndpoint() {
        for (String path : List.of("raw", "blame")) {
            TestService.Answer answer = service.get("/api/v1/repositories/tide/" + path, "path", "large.txt");
            assertThat(answer.status()).as(path + answer.body()).isEqualTo(413);
            assertThat(answer.detail()).contains("bytes").endsWith(".");
        }
        assertThat(service.get("/api/v1/archive", "file", "tide/large.txt").status())
                .isEqualTo(413);
        TestService.Answer file = service.get("/api/v1/repositories/tide/file", "path", "large.txt");
        assertThat(file.json().path("skipped").asString()).contains("large");
        assertThat(file.json().path("text").isNull()).isTrue();
        TestService.Answer diff = service.get("/api/v1/repositories/tide/diff", "to", "main");
        assertThat(diff.status()).isEqualTo(200);
    }

    @Test
    void downloadsThatNobodyTakesHoldUpNoOthers() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int i = 0; i < 100; i++) { // of 1 MB each, and more than what may be in memory at a time
                Socket socket = new Socket();
                socket.setReceiveBufferSize(4 << 10);
                socket.bind(new InetSocketAddress(InetAddress.getByName("127.0.0.14"), 0));
                socket.connect(new InetSocketAddress("127.0.0.1", port), 5_000);
                send(
                        socket,
                        "GET /api/v1/repositories/tide/raw?path=picture.bin HTTP/1.1\r\nHost: 127.0.0.1:" + port
                                + "\r\n\r\n");
                assertThat(socket.getInputStream().read()).isEqualTo('H');
                slow.add(socket);
            }
            TestService.Answer answer = service.get("/api/v1/repositories/tide/raw", "path", "picture.bin");
            assertThat(answer.status()).isEqualTo(200);
        } finally {
            for (Socket socket : slow) {
                socket.close();
            }
        }
    }

    @Test
    void namesInAnArchiveLeadNowhereElse() throws Exception {
        HttpResponse<byte[]> archive = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(service.address()
                                        + "/api/v1/archive?file=tide/odd%5C..%5C..%5Cname.txt&file=tide/a.txt"))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray());
        List<String> names = new ArrayList<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive.body()))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                names.add(entry.getName());
            }
        }
        assertThat(names).containsExactly("tide/odd_.._.._name.txt", "tide/a.txt");
    }

    /** @param labels as elements of JSON */
    private static TestService.Answer register(String location, String labels) {
        return service.post(
                "/api/v1/repositories",
                "application/json",
                "{\"name\":\"x\",\"location\":\"" + location + "\",\"labels\":[" + labels + "]}");
    }

    @Test
    void bodiesHaveLimitsByKind() {
        String labels = "\"x\",".repeat(400_000) + "\"x\"";
        TestService.Answer large = register("/nowhere", labels);
        assertThat(large.status()).isEqualTo(413);
        assertThat(large.detail()).contains("1024 KiB");
        assertThat(service.post("/api/v1/places", "text/plain", "x".repeat(9 << 20))
                        .status())
                .isEqualTo(413);
        assertThat(service.post("/api/v1/exclusion-sets/import", "application/yaml", "a: b\n".repeat(300_000))
                        .status())
                .isEqualTo(413);
    }

    @Test
    void aBodyThatDoesNotSayHowLongItIsEndsAtTheLimit() throws Exception {
        byte[] chunk = "\"x\",".repeat(50_000).getBytes(StandardCharsets.UTF_8);
        try (Socket socket = connect("127.0.0.13")) {
            send(
                    socket,
                    "POST /api/v1/repositories HTTP/1.1\r\nHost: 127.0.0.1:" + port
                            + "\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\nb\r\n{\"labels\":[\r\n");
            try {
                for (int i = 0; i < 40; i++) {
                    send(socket, Integer.toHexString(chunk.length) + "\r\n");
                    socket.getOutputStream().write(chunk);
                    send(socket, "\r\n");
                }
            } catch (IOException e) {
                // it is closed before all is sent
            }
            byte[] start = socket.getInputStream().readNBytes("HTTP/1.1 413".length());
            assertThat(new String(start, StandardCharsets.UTF_8)).isEqualTo("HTTP/1.1 413");
        }
    }

    @Test
    void aRepositoryHasFiftyLabelsAtMost() {
        String labels = "\"x\",".repeat(50) + "\"x\"";
        TestService.Answer many = register("/nowhere", labels);
        assertThat(many.status()).isEqualTo(400);
        assertThat(many.detail()).contains("50 labels");
    }

    @Test
    void whatCannotBeSeenForgesNoLineOfALog() {
        TestService.Answer forged = register("/nowhere\\n12:00:00 INFO all is well", "");
        assertThat(forged.status()).isEqualTo(400);
        assertThat(forged.detail()).contains("\\u000a").doesNotContain("\n");
    }
}
