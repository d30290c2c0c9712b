package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;

/**
 * A day's pushes and searches of a team in much less: repositories change, come and go, histories are rewritten, and two
 * people search without a pause. What the process holds at the end is held against what it held once all was warm.
 */
final class Soak {
    private static final int REPOSITORIES = 60;
    private static final double SECONDS_BETWEEN_PUSHES = 1.5;
    private static final int SEARCHERS = 2;
    private static final double MOST_GROWTH = 1.25;
    private static final int SAMPLE_SECONDS = 10;

    private final Path launcher;
    private final Path folder;
    private final int minutes;
    private final Random random = new Random(20_261_129L);
    private final Victims victims;
    private final Held held = new Held();
    private final Figures pages = new Figures();
    private final AtomicLong failed = new AtomicLong();

    Soak(Path launcher, Path folder, int minutes) {
        this.launcher = launcher;
        this.folder = folder;
        this.minutes = minutes;
        this.victims = new Victims(folder.resolve("code"), random);
    }

    /** @return whether it ended as it began */
    boolean run(Table table) throws IOException, InterruptedException {
        for (int i = 0; i < REPOSITORIES; i++) {
            victims.add();
        }
        int pushes = 0;
        try (Running service = Running.start(launcher, folder.resolve("service"))) {
            for (String name : victims.names()) {
                service.add(name, victims.path(name));
            }
            service.awaitAllReady();
            long begin = System.nanoTime();
            List<Thread> searchers = IntStream.range(0, SEARCHERS)
                    .mapToObj(number -> Thread.ofPlatform().start(() -> search(service, begin, new Random(number))))
                    .toList();
            double sampled = -SAMPLE_SECONDS;
            while (elapsed(begin) < minutes * 60.0) {
                change(service, pushes++);
                if (elapsed(begin) - sampled > SAMPLE_SECONDS) {
                    sampled = elapsed(begin);
                    held.take(service, sampled / 60);
                }
                double early = pushes * SECONDS_BETWEEN_PUSHES - elapsed(begin);
                if (early > 0) {
                    Thread.sleep((long) (early * 1_000));
                }
            }
            for (Thread searcher : searchers) {
                searcher.join();
            }
            service.awaitAllReady();
        }
        table.note("soak", "%d pushes and %d searches in %d minutes", pushes, pages.count(), minutes);
        table.target("searches that failed", "none", failed.get() == 0, "%d", failed.get());
        boolean isAsBefore = failed.get() == 0;
        isAsBefore &= compare(table, "heap after the last collection, MB", Held.Sample::heapMegabytes);
        isAsBefore &= compare(table, "resident without mapped files, MB", Held.Sample::residentMegabytes);
        isAsBefore &= compare(table, "index on disk, MB", Held.Sample::indexMegabytes);
        isAsBefore &= compare(table, "mappings", Held.Sample::maps);
        isAsBefore &= compare(table, "handles", Held.Sample::handles);
        isAsBefore &= compare(table, "threads", Held.Sample::threads);
        isAsBefore &= compare(table, "segments", Held.Sample::segments);
        table.note("pages meanwhile", "median %.1f ms, 95 %% under %.1f ms", pages.at(0.5), pages.at(0.95));
        held.draw("A soak: what the process holds", folder.resolve("soak.png"));
        return isAsBefore;
    }

    private static double elapsed(long begin) {
        return (System.nanoTime() - begin) / 1e9;
    }

    private void change(Running service, int number) throws IOException, InterruptedException {
        String name = victims.any();
        if (number % 25 == 24) {
            service.remove(name);
            service.add(name, victims.path(name));
        } else {
            if (number % 10 == 9) {
                victims.rewrite(name);
            } else {
                victims.push(name);
            }
            service.refresh(name);
        }
    }

    private void search(Running service, long begin, Random draws) {
        while (elapsed(begin) < minutes * 60.0) {
            String text = Victims.WORDS.get(draws.nextInt(Victims.WORDS.size())) + " " + draws.nextInt(100);
            String query = Running.parameter("q", text) + "&limit=20";
            try {
                pages.add(
                        switch (draws.nextInt(6)) {
                            case 0 ->
                                service.millisOf(
                                        "api/v1/search/files?" + Running.parameter("q", "f" + draws.nextInt(30)));
                            case 1 ->
                                service.millisOf(
                                        "api/v1/search/commits?" + Running.parameter("q", "Push") + "&limit=20");
                            case 2 -> service.millis(query + "&counts=exact&reading=regex");
                            default -> service.millis(query);
                        });
                Thread.sleep(20);
            } catch (IOException e) {
                failed.incrementAndGet();
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    /** The last sixth of the time against the second sixth, by when all is warm. */
    private boolean compare(Table table, String what, ToDoubleFunction<Held.Sample> figure) {
        double sixth = minutes / 6.0;
        double before = held.median(sixth, 2 * sixth, figure);
        double after = held.median(5 * sixth, minutes, figure);
        boolean isAsBefore = after <= before * MOST_GROWTH + 5;
        table.target(what, "as before", isAsBefore, "%.0f, at first %.0f", after, before);
        return isAsBefore;
    }
}
