package dev.oddbeacon.bench;

import dev.oddbeacon.bench.micro.Analysing;
import dev.oddbeacon.bench.micro.InnerLoops;
import dev.oddbeacon.bench.truth.AgainstCompilers;
import dev.oddbeacon.bench.truth.UsesAgainstCompilers;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * Measures the service as users run it, beside a reference in the same run, because machines differ; and holds every
 * hit of a number of searches against what grep finds. Called by the launcher:
 * {@code LAUNCHER [--source WORKTREE] [--data DIR] [--only PART,...] [--texts N]}. {@code --only lexing} measures our
 * analysis by itself, {@code --only languages --against LANGUAGE,FOLDER-OR-DUMP} holds it against a compiler, {@code
 * --only uses --against LANGUAGE,FOLDER} what is said of uses.
 */
public final class BenchMain {
    private BenchMain() {}

    public static void main(String[] arguments) throws Exception {
        List<String> only = list(arguments, "--only");
        if (only.contains("loops")) {
            InnerLoops.run();
            return;
        }
        if (only.contains("languages") || only.contains("uses")) {
            Path scripts = Path.of(arguments[0]).resolveSibling("bench/truth");
            List<String> against = list(arguments, "--against");
            try {
                if (only.contains("uses")) {
                    UsesAgainstCompilers.print(scripts, against);
                } else {
                    AgainstCompilers.print(scripts, against);
                }
            } catch (IOException e) {
                System.err.println(e.getMessage());
                System.exit(1);
            }
            return;
        }
        Path launcher = Path.of(arguments[0]);
        Path data = option(arguments, "--data", launcher.resolveSibling("var/bench"));
        Files.createDirectories(data);
        if (only.contains("torture")) {
            Table table = new Table();
            boolean held = Torture.run(
                    launcher,
                    data.resolve("torture-" + System.currentTimeMillis()),
                    number(arguments, "--minutes", 2),
                    number(arguments, "--seed", (int) (System.nanoTime() & 0xFFFF)),
                    table);
            table.print(data);
            System.exit(held ? 0 : 1);
        }
        if (only.contains("soak")) {
            Table table = new Table();
            Soak soak = new Soak(
                    launcher, data.resolve("soak-" + System.currentTimeMillis()), number(arguments, "--minutes", 60));
            boolean isAsBefore = soak.run(table);
            table.print(data);
            System.exit(isAsBefore ? 0 : 1);
        }
        if (only.contains("cluster")) {
            Table table = new Table();
            Running.prepare(launcher, data.resolve("prepared"));
            boolean isAlike =
                    Cluster.measure(launcher, data.resolve("cluster"), number(arguments, "--texts", 10_000), table);
            table.print(data);
            System.exit(isAlike ? 0 : 1);
        }
        if (!list(arguments, "--seed").isEmpty()) {
            Words.drawBy(number(arguments, "--seed", 0));
        }
        Path source = option(arguments, "--source", data.resolve("linux"));
        if (!Files.exists(source)) {
            Corpus.prepare(source, data);
        }
        if (only.contains("repositories")) {
            Table table = new Table();
            int count = number(arguments, "--repositories", 10_000);
            Running.prepare(launcher, data.resolve("prepared"));
            new Repositories(
                            launcher,
                            source,
                            data.resolve("repositories-" + count),
                            count,
                            number(arguments, "--minutes", 60))
                    .measure(table);
            table.print(data);
            return;
        }
        if (only.contains("lexing")) {
            Analysing.run(source);
            return;
        }
        Table table = new Table();
        boolean equal = true;
        Path run = data.resolve("run");
        Command.run(data, "rm", "-rf", run.toString()); // of the run before
        Files.createDirectories(run);
        Path folder = run.resolve("service");
        Running.prepare(launcher, data.resolve("prepared"));
        try (Running service = Running.start(launcher, folder)) {
            if (!only.equals(List.of("history"))) {
                Indexing.measure(service, source, run.resolve("copy"), table);
            }
            if (isWanted(only, "equality")) {
                equal = new Comparison(service, source).run(table);
            }
            if (only.contains("drawn")) {
                equal &= new Comparison(service, source).drawn(number(arguments, "--texts", 300), table);
            }
            if (isWanted(only, "counting")) {
                Counting.measure(service, source, table);
            }
            if (isWanted(only, "pages")) {
                new Workload(service, source, Indexing.SCOPE).measure(table);
            }
            if (isWanted(only, "ranking")) {
                Ranking.measure(service, source, table);
            }
            if (isWanted(only, "narrowing")) {
                Narrowing.measure(service, source, table);
            }
            if (isWanted(only, "symbols")) {
                Symbols.measure(service, source, table);
            }
            if (isWanted(only, "shapes")) {
                Shapes.measure(service, source, table);
            }
            if (isWanted(only, "history")) {
                History.measure(service, source, data, table);
            }
            if (isWanted(only, "crowd")) {
                Crowd.measure(service, new Words(source).words(100), table);
            }
            if (isWanted(only, "client")) {
                Pushing.client(service, launcher, table);
            }
            if (isWanted(only, "push")) {
                Pushing.measure(service, source, data, table);
            }
            if (isWanted(only, "growth")) {
                Optional<Path> more = list(arguments, "--more").stream()
                        .map(given -> Path.of(given).toAbsolutePath())
                        .findFirst();
                Growth.measure(service, launcher, source, more, run.resolve("growth"), table);
            }
            Indexing.memory(service, table);
        }
        if (isWanted(only, "cold")) {
            try (Running again = Running.start(launcher, folder)) {
                new Workload(again, source, Indexing.SCOPE).cold(table);
            }
        }
        if (isWanted(only, "small")) {
            SmallRepositories.measure(launcher, source, run.resolve("small"), table);
        }
        if (isWanted(only, "team")) {
            Team.measure(launcher, source, run.resolve("team"), table);
        }
        if (isWanted(only, "groups")) {
            Grouping.measure(launcher, source, run.resolve("groups"), table);
        }
        table.print(data);
        System.exit(equal ? 0 : 1);
    }

    private static boolean isWanted(List<String> only, String part) {
        return only.isEmpty() || only.contains(part);
    }

    private static int number(String[] arguments, String name, int otherwise) {
        List<String> given = list(arguments, name);
        return given.isEmpty() ? otherwise : Integer.parseInt(given.getFirst());
    }

    private static List<String> list(String[] arguments, String name) {
        int at = List.of(arguments).indexOf(name);
        return at < 0 || at + 1 == arguments.length ? List.of() : List.of(arguments[at + 1].split(","));
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
