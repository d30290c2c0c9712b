package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Processes that serve and index apart, started as a user does, and ended in every way. */
class DutiesTest {
    @TempDir
    private Path folder;

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

    @Test
    void searchingNeverNoticesWhateverEndsTheProcessThatIndexes() throws IOException, InterruptedException {
        GitFolder small = GitFolder.create(folder.resolve("small"))
                .write("a.txt", "eider\n")
                .commit("First");
        Path data = folder.resolve("data");
        Launched serving = Launched.start("serve", data, "--port", "0", "--duty", "serving");
        try (Launched indexing = indexing(data)) {
            add(serving, "small", small, "--wait");
            assertThat(hits(serving, "eider")).isEqualTo(1);
            assertThat(Client.run(serving.address(), "health").out())
                    .contains("indexing")
                    .contains("serving");
            List<ProcessHandle> workers = indexing.children("oddbeacon.duties=indexing");
            assertThat(workers).isNotEmpty();
            workers.forEach(ProcessHandle::destroyForcibly);
            Launched before = serving;
            await("that nobody indexes is told", () -> health(before).contains("No process indexes."));
            assertThat(hits(serving, "eider")).isEqualTo(1);

            serving.close(); // with the database that it started
            serving = Launched.start("serve", data, "--port", "0", "--duty", "serving");
            small.write("a.txt", "eider\neider\n").commit("Second");
            Client.run(serving.address(), "repos", "refresh", "small", "--wait");
            assertThat(hits(serving, "eider")).isEqualTo(2);
            assertThat(indexing.output())
                    .as("what it says, whether the service is back before or after it is")
                    .containsSubsequence("Indexing what", "Indexing has ended by itself", "Indexing what");
        } finally {
            serving.close();
        }
        assertThat(unfinished(data)).as("what is left in the index").isEmpty();
    }

    private static String health(Launched service) {
        try {
            return Http.get(service.address(), "/api/v1/health").json().toString();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
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
