package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** A thousand repositories of 20 files each, beside one that holds the same 20,000 files. */
final class SmallRepositories {
    private static final int REPOSITORIES = 1_000;
    private static final int FILES_IN_EACH = 20;
    private static final int SEARCHES = 100;

    private SmallRepositories() {}

    static void measure(Path launcher, Path source, Path folder, Table table) throws IOException, InterruptedException {
        Generated generated = new Generated(source);
        List<String> files = generated.spread(REPOSITORIES * FILES_IN_EACH);
        Path one = generated.repository(folder.resolve("one"), files);
        for (int i = 0; i < REPOSITORIES; i++) {
            generated.repository(
                    folder.resolve("small-" + i), files.subList(i * FILES_IN_EACH, (i + 1) * FILES_IN_EACH));
        }
        try (Running service = Running.start(launcher, folder.resolve("service"))) {
            service.add("one", one);
            service.awaitReady("one");
            long start = System.nanoTime();
            for (int i = 0; i < REPOSITORIES; i++) {
                service.add("small-" + i, folder.resolve("small-" + i));
            }
            service.awaitAllReady();
            double seconds = (System.nanoTime() - start) / 1e9;
            List<String> texts = new Words(source).texts(SEARCHES);
            millis(service, texts, "one");
            millis(service, texts, "small-*");
            Figures inOne = millis(service, texts, "one");
            Figures inMany = millis(service, texts, "small-*");
            double ratio = inMany.at(0.5) / inOne.at(0.5);
            table.target(
                    "a page from 1,000 repositories of 20 files",
                    "about as fast as from one of 20,000: 1.5 times",
                    ratio <= 1.5,
                    "%.2f times (median %.1f ms to %.1f ms, 95 %% under %.1f ms to %.1f ms)",
                    ratio,
                    inMany.at(0.5),
                    inOne.at(0.5),
                    inMany.at(0.95),
                    inOne.at(0.95));
            table.note("1,000 repositories of 20 files, added to searchable", "%.0f s", seconds);
        }
    }

    private static Figures millis(Running service, List<String> texts, String scope)
            throws IOException, InterruptedException {
        Figures millis = new Figures();
        for (String text : texts) {
            millis.add(service.millis(
                    Running.parameter("q", text) + "&limit=100&context=3&" + Running.parameter("repo", scope)));
        }
        return millis;
    }
}
