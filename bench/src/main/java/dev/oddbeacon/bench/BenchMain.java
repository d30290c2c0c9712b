package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Measures the service as users run it, beside a reference in the same run, because machines differ; and holds every
 * hit of a number of searches against what grep finds. Called by the launcher: {@code LAUNCHER [--source WORKTREE] [--data DIR]}.
 */
public final class BenchMain {
    private BenchMain() {}

    public static void main(String[] arguments) throws Exception {
        Path launcher = Path.of(arguments[0]);
        Path data = option(arguments, "--data", launcher.resolveSibling("var/bench"));
        Files.createDirectories(data);
        Path source = option(arguments, "--source", data.resolve("linux"));
        if (!Files.exists(source)) {
            Corpus.prepare(source, data);
        }
        Table table = new Table();
        boolean equal;
        Path folder = data.resolve("service");
        try (Running service = Running.start(launcher, folder)) {
            Indexing.measure(service, source, table);
            equal = new Comparison(service, source).run(table);
            Counting.measure(service, source, table);
            new Workload(service, source).measure(table);
            Pushing.client(service, launcher, table);
            Pushing.measure(service, source, data, table);
            Indexing.memory(service, table);
        }
        try (Running again = Running.start(launcher, folder)) {
            new Workload(again, source).cold(table);
        }
        table.print();
        System.exit(equal ? 0 : 1);
    }

    private static Path option(String[] arguments, String name, Path otherwise) {
        for (int i = 1; i < arguments.length - 1; i++) {
            if (arguments[i].equals(name)) {
                return Path.of(arguments[i + 1]).toAbsolutePath();
            }
        }
        return otherwise;
    }
}
