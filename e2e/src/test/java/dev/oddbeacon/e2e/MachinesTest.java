package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;

/** The demo of several machines, from its start to its end. */
class MachinesTest extends InBrowser {
    private static final List<String> QUESTIONS = List.of(
            "search/lines?q=mooring+buffer&counts=exact&limit=20",
            "search/lines?q=assign%5Cw*%5C(&reading=regex&order=recent&context=2",
            "search/lines?q=berth&trait=test&order=relevance",
            "search/files?q=planner",
            "search/symbols?q=Berth",
            "search/commits?q=buffer",
            "search/lines/over-time?q=berth",
            "search/lines/second-looks?q=moorring+bufer",
            "types",
            "repositories/berth-planner/tree",
            "repositories/berth-planner/log?limit=10",
            "repositories/berth-planner/blame?path=README.md");

    @TempDir
    private Path folder;

    private static String answer(String address, String question) {
        return new String(Http.get(address, "/api/v1/" + question).response().body(), StandardCharsets.UTF_8)
                .replaceAll("\"(tookMillis|millis)\":[0-9.E-]+", "")
                .replaceAll("\"next\":\"[^\"]*\"", "");
    }

    private static void await(String what, BooleanSupplier condition) throws InterruptedException {
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as(what).isLessThan(deadline);
            Thread.sleep(100);
        }
    }

    private static String states(String address) {
        return Client.run(address, "machines", "list")
                .out()
                .lines()
                .filter(line -> line.startsWith("pier-"))
                .map(line -> line.replaceAll("^(\\S+).* (serving|joining|leaving|gone) .*", "$1 $2"))
                .toList()
                .toString();
    }

    @Test
    void twoMachinesAnswerAlikeAndOneGoesOnAlone() throws IOException, InterruptedException {
        Path data = folder.resolve("data");
        List<ProcessHandle> all;
        try (Launched demo = Launched.start("demo", data, "--port", "0", "--machines", "2")) {
            String first = demo.address();
            String second = Files.readString(data.resolve("machines/pier-2/address"))
                    .strip()
                    .replaceFirst("/$", "");
            assertThat(demo.awaitLine("and: ")).startsWith("and: " + second);
            await("both are there", () -> states(first).equals("[pier-1 serving, pier-2 serving]"));
            await(
                    "all mirrors are there",
                    () -> !Client.run(second, "machines", "list", "--format", "jsonl")
                            .out()
                            .matches("(?s).*\"mirrorsBehind\":[1-9].*"));
            for (String question : QUESTIONS) {
                assertThat(Http.get(first, "/api/v1/" + question).status())
                        .as(question)
                        .isEqualTo(200);
                assertThat(answer(second, question)).as(question).isEqualTo(answer(first, question));
            }
            await(
                    "they reach one another",
                    () -> !Client.run(first, "machines", "list", "--format", "jsonl")
                            .out()
                            .contains("\"isReached\":false"));
            String begun = "search/lines?q=berth&limit=3&counts=exact";
            String next = new String(
                            Http.get(second, "/api/v1/" + begun).response().body(), StandardCharsets.UTF_8)
                    .replaceAll("(?s).*\"next\":\"([^\"]*)\".*", "$1");
            String goesOn = begun + "&cursor=" + next;
            assertThat(answer(second, goesOn)).contains("\"files\":[{");
            assertThat(answer(first, goesOn)).as("whichever is asked").isEqualTo(answer(second, goesOn));

            browser.get(first + "/machines");
            wait.until(page ->
                    page.findElements(By.cssSelector("[data-state=serving]")).size() == 2);
            demo.children("oddbeacon.cluster.machine=pier-2").forEach(ProcessHandle::destroyForcibly);
            await("it is gone", () -> states(first).equals("[pier-1 serving, pier-2 gone]"));
            wait.until(page -> page.findElements(By.cssSelector("[data-machine=pier-2][data-state=gone]"))
                            .size()
                    == 1);
            assertThat(Client.run(first, "health").out()).contains("The machine pier-2 is gone.");
            assertThat(Client.run(first, "lines", "mooring buffer").out()).contains("docs/rules.md");
            assertThat(Client.run(first, "machines", "retire", "pier-2").err()).contains("is forgotten");
            await("it is forgotten", () -> states(first).equals("[pier-1 serving]"));
            browser.get("about:blank"); // or it would ask for what is about to end
            all = demo.children("");
            assertThat(all).hasSizeGreaterThan(2);
        }
        await("nothing is left behind", () -> all.stream().noneMatch(ProcessHandle::isAlive));
    }
}
