package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.stream.Stream;

/** Measures the time from a push until its lines are found; and how long a command of the client takes. */
final class Pushing {
    private static final int FILES = 100;
    private static final int RUNS = 11;

    private Pushing() {}

    /** In a clone, so that the corpus stays as it is. */
    static void measure(Running service, Path source, Path folder, Table table)
            throws IOException, InterruptedException {
        Path clone = folder.resolve("pushed");
        if (!Files.exists(clone)) {
            Command.run(folder, "git", "clone", "-q", "--shared", source.toString(), clone.toString());
        }
        service.add("pushed", clone);
        service.awaitReady("pushed");
        String mark = "pushed_" + System.nanoTime();
        try (Stream<Path> files = Files.walk(clone.resolve("drivers/net"))) {
            for (Path file :
                    files.filter(Files::isRegularFile).sorted().limit(FILES).toList()) {
                Files.writeString(file, "/* " + mark + " */\n", StandardCharsets.UTF_8, StandardOpenOption.APPEND);
            }
        }
        Command.git(
                clone, "-c", "user.name=Bench", "-c", "user.email=bench@quillhaven.example", "commit", "-qam", mark);
        long start = System.nanoTime();
        service.refresh("pushed");
        while (service.search(Running.parameter("q", mark) + "&repo=pushed&only=counts")
                        .counts()
                        .files()
                < FILES) {
            Thread.sleep(10);
        }
        double seconds = (System.nanoTime() - start) / 1e9;
        table.target(
                "100 changed files pushed, of 78,635",
                "searchable 2 s after the refresh call",
                seconds <= 2,
                "%.1f s",
                seconds);
        service.remove("pushed");
    }

    static void client(Running service, Path launcher, Table table) throws IOException, InterruptedException {
        Figures seconds = new Figures();
        for (int i = 0; i < RUNS; i++) {
            long start = System.nanoTime();
            Command.output(
                    launcher.getParent(),
                    List.of(
                            "sh",
                            launcher.toString(),
                            "lines",
                            "--url",
                            service.address().toString(),
                            "--limit",
                            "20",
                            "spin_lock_irqsave"),
                    1,
                    java.io.InputStream::readAllBytes);
            seconds.add((System.nanoTime() - start) / 1e9);
        }
        Figures bare = new Figures();
        for (int i = 0; i < RUNS; i++) {
            bare.add(Command.seconds(
                    launcher.getParent(), System.getProperty("java.home") + "/bin/java", "-Xlog:disable", "--version"));
        }
        double ratio = seconds.at(0.5) / bare.at(0.5);
        table.target(
                "a command of the client, start to exit",
                "5 times a Java machine that only tells its version",
                ratio <= 5,
                "%.1f times (%.2f s in the median to %.3f s), longest %.2f s",
                ratio,
                seconds.at(0.5),
                bare.at(0.5),
                seconds.at(1));
    }
}
