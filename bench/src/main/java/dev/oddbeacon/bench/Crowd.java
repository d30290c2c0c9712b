package dev.oddbeacon.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * Cheap searches while 32 callers ask for the most expensive ones, and how soon a search ends that its asker replaces.
 */
final class Crowd {
    private static final int CALLERS = 32;
    private static final int REPLACED = 40;
    private static final String EXPENSIVE =
            Running.parameter("q", "(\\w+\\s+){3}\\w+[0-9]+z") + "&reading=regex&counts=exact&repo=" + Indexing.NAME;

    private Crowd() {}

    static void measure(Running service, List<String> cheap, Table table) throws Exception {
        try (ExecutorService executor = Executors.newFixedThreadPool(CALLERS)) {
            List<Future<?>> running = new ArrayList<>();
            for (int i = 0; i < CALLERS; i++) {
                String asker = "&asker=crowd-" + i;
                running.add(executor.submit(() -> service.millis(EXPENSIVE + asker)));
            }
            Thread.sleep(1_000);
            Figures millis = new Figures();
            for (String word : cheap) {
                millis.add(service.millis(
                        Running.parameter("q", word) + "&limit=100&context=3&asker=calm&repo=" + Indexing.NAME));
            }
            long left = running.stream().filter(future -> !future.isDone()).count();
            for (int i = 0; i < CALLERS; i++) {
                service.millis("q=zq&limit=1&asker=crowd-" + i); // ends what is left
            }
            for (Future<?> future : running) {
                future.get();
            }
            table.target(
                    "a cheap search while " + CALLERS + " callers ask expensive ones",
                    "100 ms",
                    millis.at(0.95) <= 100,
                    "median %.0f ms, 95 %% under %.0f ms, longest %.0f ms (%d of the expensive ones were still running at the end)",
                    millis.at(0.5),
                    millis.at(0.95),
                    millis.at(1),
                    left);
        }
        replaced(service, table);
    }

    private static void replaced(Running service, Table table) throws Exception {
        Figures millis = new Figures();
        try (ExecutorService executor = Executors.newSingleThreadExecutor()) {
            for (int i = 0; i < REPLACED; i++) {
                Future<Long> first = executor.submit(() -> {
                    service.millis(EXPENSIVE + "&asker=typing");
                    return System.nanoTime();
                });
                Thread.sleep(100);
                long start = System.nanoTime();
                service.millis("q=zq&limit=1&asker=typing");
                millis.add((first.get() - start) / 1e6);
            }
        }
        table.target(
                "a search that its asker replaces, until its threads are free",
                "50 ms",
                millis.at(0.95) <= 50,
                "median %.0f ms, longest %.0f ms",
                millis.at(0.5),
                millis.at(1));
    }
}
