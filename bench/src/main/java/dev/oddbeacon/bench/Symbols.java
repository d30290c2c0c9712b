package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;

/** Searches for symbols, and outlines. */
final class Symbols {
    private static final int NAMES = 200;
    private static final int FILES = 200;
    private static final int ROUNDS = 3;
    private static final long SEED = 5;
    /** Names that a tree of C uses thousands of times. */
    private static final List<String> FREQUENT = List.of(
            "kmalloc",
            "kfree",
            "dev_err",
            "mutex_lock",
            "list_head",
            "sk_buff",
            "spin_lock_irqsave",
            "device",
            "printk",
            "inode",
            "task_struct",
            "u32");

    private Symbols() {}

    static void measure(Running service, Path source, Table table) throws IOException, InterruptedException {
        List<String> drawn = new Words(source).words(NAMES);
        for (String role : List.of("declaration", "use")) {
            Figures millis = millis(service, searches(drawn, role, "plain"));
            table.target(
                    role.equals("use")
                            ? "uses of a drawn name, exact counts"
                            : "declarations of a drawn name, exact counts",
                    "median 5 ms, 95th percentile 25 ms",
                    millis.at(0.5) <= 5 && millis.at(0.95) <= 25,
                    "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                    millis.at(0.5),
                    millis.at(0.95),
                    millis.at(1));
        }
        Figures frequent = millis(service, searches(FREQUENT, "use", "plain"));
        table.target(
                "uses of names that are used thousands of times, exact counts",
                "95th percentile 25 ms",
                frequent.at(0.95) <= 25,
                "median %.1f ms, 95 %% under %.1f ms",
                frequent.at(0.5),
                frequent.at(0.95));
        Figures parts = millis(
                service,
                searches(
                        drawn.stream()
                                .map(name -> name.substring(0, Math.min(5, name.length())))
                                .toList(),
                        "declaration",
                        "fragments"));
        table.target(
                "declarations by the first letters of a name",
                "95th percentile 25 ms",
                parts.at(0.95) <= 25,
                "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                parts.at(0.5),
                parts.at(0.95),
                parts.at(1));
        outlines(service, source, table);
    }

    private static List<String> searches(List<String> names, String role, String reading) {
        return names.stream()
                .map(name -> "api/v1/search/symbols?limit=100&repo=" + Indexing.NAME + "&role=" + role + "&reading="
                        + reading + "&" + Running.parameter("q", name))
                .toList();
    }

    private static void outlines(Running service, Path source, Table table) throws IOException, InterruptedException {
        List<Path> files;
        try (Stream<Path> all = Files.walk(source)) {
            files = new ArrayList<>(all.filter(path ->
                            path.toString().endsWith(".c") || path.toString().endsWith(".h"))
                    .sorted()
                    .toList());
        }
        Path largest = files.getFirst();
        for (Path file : files) {
            largest = Files.size(file) > Files.size(largest) ? file : largest;
        }
        Random random = new Random(SEED);
        List<String> paths = new ArrayList<>(List.of(path(source, largest)));
        for (int i = 0; i < FILES; i++) {
            paths.add(path(source, files.get(random.nextInt(files.size()))));
        }
        Figures millis = millis(service, paths);
        Figures ofLargest = millis(service, paths.subList(0, 1));
        table.target(
                "the outline of a file; the longest is that of a file of 24 MB",
                "20 ms",
                millis.at(0.99) <= 20 && ofLargest.at(1) <= 20,
                "median %.1f ms, 99 %% under %.1f ms, the largest %.0f ms",
                millis.at(0.5),
                millis.at(0.99),
                ofLargest.at(1));
    }

    private static String path(Path source, Path file) {
        return "api/v1/repositories/" + Indexing.NAME + "/outline?"
                + Running.parameter("path", source.relativize(file).toString());
    }

    private static Figures millis(Running service, List<String> paths) throws IOException, InterruptedException {
        Figures millis = new Figures();
        for (int round = 0; round < ROUNDS; round++) {
            for (String path : paths) {
                double taken = service.millisOf(path);
                if (round == ROUNDS - 1) {
                    millis.add(taken);
                }
            }
        }
        return millis;
    }
}
