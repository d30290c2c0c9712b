package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Processes that serve and index apart, started as a user does, and ended in every way. */
class DutiesTest {
    private static final int FILES = 3_000;
    private static final int LINES = 300;

    @TempDir
    private Path folder;

    private static JsonNode repository(Launched service, String name) throws IOException {
        return Http.get(service.address(), "/api/v1/repositories/" + name).json();
    }

    private static int hits(Launched service, String text) throws IOException {
        return Http.get(service.address(), "/api/v1/search/lines", "q", text, "limit", "1", "counts", "exact")
                .json()
                .path("counts")
                .path("hits")
                .asInt();
    }

    private static void await(String what, BooleanSupplier condition) throws InterruptedException {
        long deadline = System.nanoTime() + 120_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as(what).isLessThan(deadline);
            Thread.sleep(50);
        }
    }

    private static String state(Launched service, String name) {
        try {
            return repository(service, name).path("state").asString();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Launched indexing(Path data) throws IOException, InterruptedException {
        Launched started = Launched.begin("serve", data, "--duty", "indexing");
        awaitIndexing(started);
        return started;
    }

    private static void awaitIndexing(Launched started) throws InterruptedException {
        await("it begins to index", () -> {
            try {
                return started.output().contains("Indexing what");
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
        });
    }

    /** A repository that takes some seconds to index; each file has one line with its own word. */
    private GitFolder large() throws IOException {
        Random random = new Random(17);
        GitFolder git = GitFolder.create(folder.resolve("large"));
        for (int file = 0; file < FILES; file++) {
            String noise = random.ints(LINES, 0, 1 << 24)
                    .mapToObj(number -> "berth " + Integer.toHexString(number) + " of " + (number % 977) + "\n")
                    .collect(Collectors.joining());
            git.write("d" + file % 50 + "/f" + file + ".txt", "mooring\n" + noise);
        }
        return git.commit("All of it");
    }

    @Test
    void searchingNeverNoticesWhateverEndsTheProcessThatIndexes() throws IOException, InterruptedException {
        GitFolder small = GitFolder.create(folder.resolve("small"))
                .write("a.txt", "eider\n")
                .commit("First");
        GitFolder large = large();
        Path data = folder.resolve("data");
        Launched serving = Launched.start("serve", data, "--port", "0", "--duty", "serving");
        try (Launched second = Launched.begin("serve", data, "--duty", "indexing")) {
            try (Launched first = indexing(data)) {
                add(serving, "small", small, "--wait");
                awaitIndexing(second);
                add(serving, "large", large);
                Launched before = serving;
                await("it is being indexed", () -> state(before, "large").equals("indexing"));
                Thread.sleep(500); // into its text
                List<ProcessHandle> workers = first.children("oddbeacon.duties=indexing");
                assertThat(workers).isNotEmpty();
                workers.forEach(ProcessHandle::destroyForcibly);
                assertThat(hits(serving, "eider")).isEqualTo(1);
                await("it is done", () -> state(before, "large").equals("ready"));
                assertThat(hits(serving, "mooring")).isEqualTo(FILES);
                JsonNode health = Http.get(serving.address(), "/api/v1/health").json();
                assertThat(health.path("processes").findValuesAsString("host")).hasSizeBetween(2, 3);
                assertThat(Client.run(serving.address(), "health").out())
                        .contains("indexing")
                        .contains("serving");
            }
            serving.close(); // with the database that it started
            serving = Launched.start("serve", data, "--port", "0", "--duty", "serving");
            small.write("a.txt", "eider\neider\n").commit("Second");
            Client.run(serving.address(), "repos", "refresh", "small", "--wait");
            assertThat(hits(serving, "eider")).isEqualTo(2);
            assertThat(hits(serving, "mooring")).isEqualTo(FILES);
            assertThat(second.output()).contains("The service was started again");
        } finally {
            serving.close();
        }
        assertThat(unfinished(data)).as("what is left in the index").isEmpty();
    }

    private static void add(Launched service, String name, GitFolder git, String... more) throws IOException {
        List<String> command =
                new ArrayList<>(List.of("repos", "add", name, git.path().toString()));
        command.addAll(List.of(more));
        assertThat(Client.run(service.address(), command.toArray(String[]::new)).status())
                .isZero();
    }

    /** Files that are no files of an index. */
    private static List<String> unfinished(Path data) throws IOException {
        try (var files = Files.list(data.resolve("index"))) {
            return files.map(file -> file.getFileName().toString())
                    .filter(name ->
                            !name.endsWith(".segment") && !name.endsWith(".snapshot") && !name.endsWith(".history"))
                    .toList();
        }
    }

    @Test
    void whatCannotBeIsSaid() throws IOException, InterruptedException {
        try (Launched nowhere = Launched.begin("serve", folder.resolve("none"), "--duty", "indexing")) {
            assertThat(nowhere.exitStatus()).isEqualTo(3);
            assertThat(nowhere.output()).contains("there is no data folder");
        }
        try (Launched other = Launched.begin("serve", folder.resolve("data"), "--duty", "resting")) {
            assertThat(other.exitStatus()).isEqualTo(2);
            assertThat(other.output()).contains("--duty is serving or indexing");
        }
    }
}
