package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Hosts that take a connection and never answer hold up nobody. */
class SlowHostsTest {
    @TempDir
    Path folder;

    private final CountDownLatch end = new CountDownLatch(1);
    private final AtomicInteger asking = new AtomicInteger();
    private final AtomicInteger most = new AtomicInteger();
    private HttpServer host;

    @BeforeEach
    void listen() throws IOException {
        host = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        host.createContext("/", _ -> {
            most.accumulateAndGet(asking.incrementAndGet(), Math::max);
            try {
                end.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        host.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        host.start();
    }

    @AfterEach
    void stop() {
        end.countDown();
        host.stop(0);
    }

    private TestService start(String... more) {
        String[] options = new String[more.length + 1];
        options[0] = "--oddbeacon.locations.hosts=127.0.0.1";
        System.arraycopy(more, 0, options, 1, more.length);
        return TestService.start(Database.shared().create(), folder.resolve("data"), options);
    }

    private void addSilent(TestService service, String name) {
        TestService.Answer added = service.post(
                "/api/v1/repositories",
                "application/json",
                "{\"name\":\"" + name + "\",\"location\":\"http://127.0.0.1:"
                        + host.getAddress().getPort() + "/" + name + ".git\"}");
        assertThat(added.status()).isEqualTo(201);
    }

    @Test
    void twoOfOneHostAreAskedAtATimeAndOthersAreIndexed() throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", "low tide\n")
                .commit("Gauge");
        try (TestService service = start()) {
            for (int i = 0; i < 10; i++) {
                addSilent(service, "silent" + i);
            }
            service.add("tide", repository.path());
            Waiting.until(() -> most.get() == 2);
            assertThat(service.get("/api/v1/repositories")
                            .json()
                            .valueStream()
                            .map(silent -> silent.path("state").asString()))
                    .filteredOn("waiting"::equals)
                    .hasSize(8);
        }
        assertThat(most).hasValue(2);
    }

    @Test
    void aFetchThatTakesLongerThanAJobMayFailsAndIsNotTriedForEver() {
        try (TestService service = start("--oddbeacon.job-time=2s")) {
            addSilent(service, "silent");
            Waiting.until(() -> service.get("/api/v1/repositories/silent")
                    .json()
                    .path("state")
                    .asString()
                    .equals("failed"));
        }
    }
}
