package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * Many readers while repositories change in random order: whoever searches sees each repository as one of its commits left
 * it, never older than before, and all pages of a search see the same.
 */
class ViewsUnderChangeTest {
    private static final int READERS = 6;
    private static final int STEPS = 14;
    private static final List<String> NAMES = List.of("ebb", "flow", "slack");

    @TempDir
    Path folder;

    private final AtomicBoolean isOver = new AtomicBoolean();
    private final Map<String, TestRepository> repositories = new HashMap<>();
    private final Map<String, Integer> states = new HashMap<>();

    private void change(String name) throws IOException {
        int state = states.merge(name, 1, Integer::sum);
        repositories
                .get(name)
                .write("a.txt", "tide state " + state + "\n")
                .write("deep/b.txt", "tide state " + state + "\n")
                .commit("State " + state);
    }

    /** The states of each repository that all pages of one search tell. */
    private static Map<String, Set<Integer>> read(TestService service, int limit) {
        Map<String, Set<Integer>> found = new HashMap<>();
        int hits = 0;
        List<String> parameters = List.of("q", "tide state", "limit", String.valueOf(limit), "counts", "exact");
        TestService.Answer page = service.get("/api/v1/search/lines", parameters.toArray(String[]::new));
        int all = page.json().path("counts").path("hits").asInt();
        while (true) {
            assertThat(page.status()).as(page.body()).isEqualTo(200);
            for (JsonNode file : page.json().path("files")) {
                for (JsonNode line : file.path("excerpts").path(0).path("lines")) {
                    hits++;
                    found.computeIfAbsent(file.path("repository").asString(), _ -> new HashSet<>())
                            .add(Integer.parseInt(line.path("text").asString().substring("tide state ".length())));
                }
            }
            String next = page.json().path("next").asString("");
            if (next.isEmpty()) {
                assertThat(hits).isEqualTo(all);
                return found;
            }
            List<String> following = new ArrayList<>(parameters);
            following.addAll(List.of("cursor", next));
            page = service.get("/api/v1/search/lines", following.toArray(String[]::new));
        }
    }

    /** @return how many different states were seen */
    private int readOn(TestService service, int limit) {
        Map<String, Integer> latest = new HashMap<>();
        Set<String> seen = new HashSet<>();
        while (!isOver.get()) {
            read(service, limit).forEach((name, found) -> {
                assertThat(found).as("states of " + name + " in one search").hasSize(1);
                int state = found.iterator().next();
                assertThat(state).as(name).isGreaterThanOrEqualTo(latest.getOrDefault(name, 0));
                latest.put(name, state);
                seen.add(name + state);
            });
        }
        return seen.size();
    }

    @Test
    void areWholeAndNeverOlderThanBefore() throws Exception {
        for (String name : NAMES) {
            repositories.put(name, TestRepository.create(folder.resolve(name)));
            change(name);
        }
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"));
                ExecutorService readers = Executors.newVirtualThreadPerTaskExecutor()) {
            NAMES.forEach(name -> service.add(name, repositories.get(name).path()));
            List<Future<Integer>> running = new ArrayList<>();
            for (int i = 0; i < READERS; i++) {
                int limit = 1 + i % 3 * 2; // so that some go from page to page, and some do not
                running.add(readers.submit(() -> readOn(service, limit)));
            }
            Random random = new Random(14);
            for (int step = 0; step < STEPS; step++) {
                String name = NAMES.get(random.nextInt(NAMES.size()));
                if (random.nextInt(5) == 0) {
                    assertThat(service.delete("/api/v1/repositories/" + name).status())
                            .isEqualTo(204);
                    service.add(name, repositories.get(name).path());
                } else {
                    change(name);
                    service.post("/api/v1/repositories/" + name + "/refresh", "application/json", "");
                    if (random.nextBoolean()) {
                        service.awaitReady(name);
                    }
                }
            }
            NAMES.forEach(service::awaitReady);
            await(() -> NAMES.stream()
                    .allMatch(name ->
                            Set.of(states.get(name)).equals(read(service, 50).get(name))));
            isOver.set(true);
            for (Future<Integer> reader : running) {
                assertThat(reader.get()).as("states that a reader saw").isGreaterThan(NAMES.size());
            }
        }
    }

    private static void await(BooleanSupplier condition) throws InterruptedException {
        long deadline = System.nanoTime() + 30_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime())
                    .as("the newest states are seen in time")
                    .isLessThan(deadline);
            Thread.sleep(20);
        }
    }
}
