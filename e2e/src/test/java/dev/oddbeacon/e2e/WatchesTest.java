package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BooleanSupplier;
import org.eclipse.lsp4j.PublishDiagnosticsParams;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.ExpectedConditions;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A call is retired: a search for it is watched, and checked in a pipeline. In the terminal, the console, a webhook. */
class WatchesTest extends InBrowser {
    @TempDir
    private Path folder;

    private static void await(BooleanSupplier condition) throws InterruptedException {
        long deadline = System.nanoTime() + 60_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).isLessThan(deadline);
            Thread.sleep(100);
        }
    }

    private static void press(String text) {
        wait.until(ExpectedConditions.elementToBeClickable(By.xpath("//button[normalize-space()='" + text + "']")))
                .click();
    }

    @Test
    void aRetiredCallIsWatchedAndCheckedInAPipeline() throws IOException, InterruptedException {
        List<String> messages = new CopyOnWriteArrayList<>();
        HttpServer receiver = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        receiver.createContext("/", exchange -> {
            messages.add(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        receiver.start();
        GitFolder pier = GitFolder.create(folder.resolve("pier"))
                .write("berth.py", "import gauge\ndepth = gauge.depth_feet(3)\n")
                .commit("Berth");
        Path settings = Files.writeString(
                folder.resolve("settings.yaml"), "oddbeacon:\n  locations:\n    hosts: [localhost]\n");
        try (Launched service =
                Launched.start("serve", folder.resolve("data"), "--port", "0", "--settings", settings.toString())) {
            String address = service.address();
            assertThat(Client.run(address, "repos", "add", "pier", pier.path().toString(), "--wait")
                            .status())
                    .isZero();
            assertThat(Client.run(address, "searches", "save", "retired", "lines", "depth_feet(")
                            .status())
                    .isZero();
            Client.Result all = Client.run(address, "searches", "check", "retired", "--keep", "start");
            assertThat(all.status()).isEqualTo(4);
            assertThat(all.out()).isEqualTo("+ pier/berth.py:2: depth = gauge.depth_feet(3)\n");
            assertThat(Client.run(address, "searches", "check", "retired", "--compared-with", "start")
                            .status())
                    .isZero();
            Client.Result begun = Client.run(
                    address,
                    "watches",
                    "add",
                    "retired",
                    "--webhook",
                    "http://localhost:" + receiver.getAddress().getPort() + "/");
            assertThat(begun.out()).contains("feed: " + address).contains("secret: whsec_");
            String kept = Client.run(address, "searches", "export", "retired", "--results")
                    .out();
            Path file = Files.writeString(folder.resolve("retired.jsonl"), kept);

            pier.write("berth.py", "# levels\nimport gauge\n\ndepth = gauge.depth_feet(3)\n")
                    .write("a folder/sign ü.py", "print(gauge.depth_feet(8))\n")
                    .commit("Sign");
            assertThat(Client.run(address, "repos", "refresh", "pier", "--wait").status())
                    .isZero();
            await(() -> Client.run(address, "watches", "notices", "retired").status() == 0);
            assertThat(Client.run(address, "watches", "notices", "retired").out())
                    .contains("  + pier/a folder/sign ü.py:1: print(gauge.depth_feet(8))\n")
                    .doesNotContain("berth.py");
            await(() -> !messages.isEmpty());
            assertThat(messages).hasSize(1);
            assertThat(messages.getFirst()).contains("sign ü.py").doesNotContain("berth.py");

            for (String[] compared : List.of(
                    new String[] {"--compared-with", "start"},
                    new String[] {"--compared-with-file", file.toString()})) {
                Client.Result check = Client.run(
                        address, "searches", "check", "retired", compared[0], compared[1], "--format", "sarif");
                assertThat(check.status()).isEqualTo(4);
                checkSarif(JsonMapper.shared().readTree(check.out()), pier);
            }

            try (EditorClient editor = new EditorClient(address, Map.of("watches", List.of("retired")), pier.path())) {
                editor.open(pier.path().resolve("berth.py"));
                editor.open(pier.path().resolve("a folder/sign ü.py"));
                List<PublishDiagnosticsParams> told = new ArrayList<>();
                await(() -> {
                    editor.diagnostics.drainTo(told);
                    return told.stream().anyMatch(one -> !one.getDiagnostics().isEmpty());
                });
                assertThat(told)
                        .filteredOn(one -> !one.getDiagnostics().isEmpty())
                        .allSatisfy(one -> {
                            assertThat(one.getUri()).contains("sign");
                            assertThat(one.getDiagnostics()).singleElement().satisfies(diagnostic -> {
                                assertThat(diagnostic.getMessage().getLeft())
                                        .startsWith("Came on ")
                                        .endsWith("says the watch retired");
                                assertThat(diagnostic.getRange().getStart().getLine())
                                        .isZero();
                            });
                        });
            }

            browser.get(address + "/");
            waitForText("[data-part=watched]", "watched, new");
            find("[data-part=saved] a[href*='/saved?']").click();
            waitForText("[data-part=comparison]", "1 came, 0 went, 2 found now, since start");
            waitForText("[data-part=notices]", "pier/a folder/sign ü.py:1");
            waitForText("[data-part=deliveries]", "sent");
            Accessibility.assertThatRulesAreFollowed(browser);
            press("Again");
            await(() -> messages.size() == 2);
            find("[data-part=check-name]").sendKeys("with the sign");
            press("Keep");
            waitForText("[data-part=checks]", "with the sign");
            find("[data-part=notices] a").click();
            waitForText("main", "print(gauge.depth_feet(8))");
            assertThat(Client.run(address, "searches", "check", "retired", "--compared-with", "with the sign")
                            .status())
                    .isZero();
            assertThat(Client.run(address, "searches", "show", "retired").out())
                    .contains("check start: 1 found")
                    .contains("check with the sign: 2 found");
            assertThat(Client.run(address, "watches", "remove", "retired").status())
                    .isZero();
            assertThat(Client.run(address, "watches", "list").status()).isEqualTo(1);
        } finally {
            receiver.stop(0);
        }
    }

    /** As far as SARIF 2.1.0 demands it, and what pipelines take from it. */
    private static void checkSarif(JsonNode log, GitFolder repository) throws IOException {
        assertThat(log.path("version").asString()).isEqualTo("2.1.0");
        JsonNode run = log.path("runs").path(0);
        JsonNode driver = run.path("tool").path("driver");
        assertThat(driver.path("name").asString()).isEqualTo("oddbeacon");
        assertThat(driver.path("rules").path(0).path("id").asString()).isEqualTo("retired");
        assertThat(run.path("results")).hasSize(1);
        JsonNode result = run.path("results").path(0);
        assertThat(result.path("ruleId").asString()).isEqualTo("retired");
        assertThat(result.path("message").path("text").asString()).contains("gauge.depth_feet(8)");
        assertThat(result.path("baselineState").asString()).isEqualTo("new");
        JsonNode place = result.path("locations").path(0).path("physicalLocation");
        assertThat(place.path("artifactLocation").path("uri").asString()).isEqualTo("a%20folder/sign%20%C3%BC.py");
        assertThat(place.path("artifactLocation").path("uriBaseId").asString()).isEqualTo("pier");
        assertThat(run.path("originalUriBaseIds").has("pier")).isTrue();
        assertThat(place.path("region").path("startLine").asInt()).isEqualTo(1);
        assertThat(run.path("versionControlProvenance")
                        .path(0)
                        .path("revisionId")
                        .asString())
                .isEqualTo(repository.git("rev-parse", "HEAD"));
    }
}
