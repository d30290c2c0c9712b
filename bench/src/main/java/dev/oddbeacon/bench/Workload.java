package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * What people ask in a day, through HTTP, 100 hits with three lines of context, the best first: 240 searches, of them 96
 * for plain text, 48 for a word, 36 for whole words minding case, 24 for two words in one file, 12 for two words near
 * each other, 12 for a word in one folder, and 12 regular expressions. The texts are drawn from the source.
 */
final class Workload {
    private static final int SEARCHES = 240;
    private static final int[] CALLERS = {1, 4, 16};

    private final Running service;
    private final List<String> searches = new ArrayList<>();

    /** @param scope parameters that say where to look */
    Workload(Running service, Path source, String scope) throws IOException {
        this.service = service;
        Words drawn = new Words(source);
        List<String> texts = drawn.texts(SEARCHES);
        List<String> words = drawn.words(2 * SEARCHES);
        for (int i = 0; i < SEARCHES; i++) {
            String word = words.get(2 * i);
            String other = words.get(2 * i + 1);
            String search = switch (i % 20) {
                case 0, 1, 2, 3, 4, 5, 6, 7 -> Running.parameter("q", texts.get(i));
                case 8, 9, 10, 11 -> Running.parameter("q", word);
                case 12, 13, 14 -> Running.parameter("q", word) + "&word=true&case=match";
                case 15, 16 -> Running.parameter("q", word + " " + other) + "&reading=expression";
                case 17 -> Running.parameter("q", "near(8, " + word + ", " + other + ")") + "&reading=expression";
                case 18 -> Running.parameter("q", word) + "&under=drivers/net";
                default -> Running.parameter("q", word + "\\w*\\s*\\(") + "&reading=regex";
            };
            searches.add(search + "&order=relevance&limit=100&context=3" + scope);
        }
    }

    void cold(Table table) throws IOException, InterruptedException {
        Figures millis = pass();
        table.note(
                "mixed searches right after a start",
                "median %.1f ms, 95 %% under %.1f ms",
                millis.at(0.5),
                millis.at(0.95));
    }

    void measure(Table table) throws Exception {
        pass();
        pass();
        Figures millis = pass();
        table.target(
                "a page of 100 hits, the best first, mixed searches, through HTTP",
                "median 2.5 ms, 95th percentile 8 ms",
                millis.at(0.5) <= 2.5 && millis.at(0.95) <= 8,
                "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                millis.at(0.5),
                millis.at(0.95),
                millis.at(1));
        table.waited("a page of 100 hits", millis);
        for (int callers : CALLERS) {
            concurrent(callers, table);
        }
    }

    Figures pass() throws IOException, InterruptedException {
        Figures millis = new Figures();
        for (String search : searches) {
            millis.add(service.millis(search));
        }
        return millis;
    }

    private void concurrent(int callers, Table table) throws Exception {
        Figures millis = new Figures();
        AtomicInteger next = new AtomicInteger();
        long start = System.nanoTime();
        try (ExecutorService executor = Executors.newFixedThreadPool(callers)) {
            List<Future<?>> running = new ArrayList<>();
            for (int i = 0; i < callers; i++) {
                running.add(executor.submit(() -> {
                    for (int index = next.getAndIncrement(); index < searches.size(); index = next.getAndIncrement()) {
                        millis.add(service.millis(searches.get(index)));
                    }
                    return null;
                }));
            }
            for (Future<?> caller : running) {
                caller.get();
            }
        }
        double seconds = (System.nanoTime() - start) / 1e9;
        table.note(
                callers + (callers == 1 ? " caller" : " callers at once"),
                "%.0f searches a second; median %.1f ms, 95 %% under %.1f ms",
                searches.size() / seconds,
                millis.at(0.5),
                millis.at(0.95));
    }
}
