package dev.oddbeacon.bench;

import dev.oddbeacon.api.NewRoster;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import tools.jackson.databind.json.JsonMapper;

/**
 * Many repositories, followed as a roster: until all can be searched, a start, and then pushes, thirty a minute, while
 * somebody searches; what the process holds is taken every few seconds.
 */
final class Repositories {
    private static final int SMALL = 20; // files
    private static final int MIDDLE = 200; // one of 20 repositories
    private static final int LARGE = 2_000; // one of 500
    private static final int PUSHED = 100; // files
    private static final double SECONDS_BETWEEN_PUSHES = 2;
    private static final int SAMPLE_MILLIS = 5_000;
    private static final int WARM = 200;

    private final Path launcher;
    private final Path source;
    private final Path folder;
    private final int count;
    private final int minutes;
    private final Random random = new Random(20_261_129L);
    private final Held held = new Held();
    private final Figures pushes = new Figures();
    private final Figures pages = new Figures();

    Repositories(Path launcher, Path source, Path folder, int count, int minutes) {
        this.launcher = launcher;
        this.source = source;
        this.folder = folder;
        this.count = count;
        this.minutes = minutes;
    }

    void measure(Table table) throws IOException, InterruptedException {
        Path code = folder.resolve("code");
        generate(code);
        Path data = folder.resolve("service");
        try (Running service = Running.start(launcher, data)) {
            long start = System.nanoTime();
            service.put(
                    "api/v1/rosters",
                    JsonMapper.shared()
                            .writeValueAsString(new NewRoster("all", code.toString(), null, null, null, null)));
            double registered = (System.nanoTime() - start) / 1e9;
            service.awaitAllReady();
            table.note(
                    String.format("%,d repositories in a roster", count),
                    "registered in %.0f s, searchable after %.0f s",
                    registered,
                    (System.nanoTime() - start) / 1e9);
        }
        long start = System.nanoTime();
        try (Running service = Running.start(launcher, data)) {
            double seconds = (System.nanoTime() - start) / 1e9;
            table.target("a start with them", "15 s", seconds <= 15, "%.1f s", seconds);
            live(service, code);
            table.target(
                    PUSHED + " files pushed, until they are found",
                    "3 s",
                    pushes.at(0.5) <= 3,
                    "median %.2f s, longest %.2f s",
                    pushes.at(0.5),
                    pushes.at(1));
            table.target(
                    "a page meanwhile",
                    "95 % under 25 ms",
                    pages.at(0.95) <= 25,
                    "median %.1f ms, 95 %% under %.1f ms",
                    pages.at(0.5),
                    pages.at(0.95));
            Held.Sample last = held.last();
            table.target(
                    "memory at the end",
                    "heap 1 GB",
                    last.heapMegabytes() <= 1_000,
                    "heap in use %.0f MB, resident without mapped files %.0f MB, %d mappings, %d handles, %d segments",
                    last.heapMegabytes(),
                    last.residentMegabytes(),
                    last.maps(),
                    last.handles(),
                    last.segments());
        }
        held.draw(
                String.format("%,d repositories, 30 pushes a minute, while somebody searches", count),
                folder.resolve("repositories.png"));
    }

    private void generate(Path code) throws IOException, InterruptedException {
        if (Files.exists(code.resolve("r" + (count - 1)))) {
            return;
        }
        Generated generated = new Generated(source);
        List<String> files = generated.spread(generated.count());
        int from = 0;
        for (int i = 0; i < count; i++) {
            int wanted = i % 500 == 499 ? LARGE : i % 20 == 19 ? MIDDLE : SMALL;
            from = from + wanted > files.size() ? 0 : from; // the files of the source are given out again and again
            generated.repository(code.resolve("r" + i), files.subList(from, from + wanted));
            from += wanted;
        }
    }

    /** Pushes at a steady pace, and searches as fast as answers come. */
    private void live(Running service, Path code) throws IOException, InterruptedException {
        List<String> texts = new Words(source).texts(2_000);
        for (int i = 0; i < WARM; i++) {
            service.millis(page(texts.get(i)));
        }
        long begin = System.nanoTime();
        Thread pusher = Thread.ofPlatform().start(() -> {
            try {
                for (int i = 0; elapsed(begin) < minutes * 60.0; i++) {
                    double late = i * SECONDS_BETWEEN_PUSHES - elapsed(begin);
                    if (late > 0) {
                        Thread.sleep((long) (late * 1_000));
                    }
                    pushes.add(push(service, code, "pushed" + begin + "x" + i));
                }
            } catch (IOException | InterruptedException e) {
                throw new IllegalStateException(e);
            }
        });
        long sampled = 0;
        for (int i = 0; pusher.isAlive(); i++) {
            pages.add(service.millis(page(texts.get(i % texts.size()))));
            if (System.nanoTime() - sampled > SAMPLE_MILLIS * 1_000_000L) {
                sampled = System.nanoTime();
                held.take(service, elapsed(begin) / 60);
            }
        }
        held.take(service, elapsed(begin) / 60);
    }

    private static double elapsed(long begin) {
        return (System.nanoTime() - begin) / 1e9;
    }

    private static String page(String text) {
        return Running.parameter("q", text) + "&limit=50&context=3";
    }

    /** @return seconds from asking for it until its lines are found */
    private double push(Running service, Path code, String mark) throws IOException, InterruptedException {
        String name = "r" + random.nextInt(count);
        Path repository = code.resolve(name);
        StringBuilder commit = new StringBuilder("commit refs/heads/main\ncommitter Bench <bench@quillhaven.example> ")
                .append(System.currentTimeMillis() / 1_000)
                .append(" +0000\ndata 1\nx\nfrom refs/heads/main^0\n");
        for (int i = 0; i < PUSHED; i++) {
            String text = mark + " in file " + i + "\n";
            commit.append("M 100644 inline pushed/")
                    .append(i)
                    .append(".txt\ndata ")
                    .append(text.length())
                    .append('\n')
                    .append(text);
        }
        Command.feed(repository, commit.toString(), "git", "fast-import", "--quiet", "--force");
        long start = System.nanoTime();
        service.refresh(name);
        while (service.search(Running.parameter("q", mark) + "&repo=" + name + "&only=counts")
                        .counts()
                        .files()
                < PUSHED) {
            Thread.sleep(20);
        }
        return elapsed(start);
    }
}
