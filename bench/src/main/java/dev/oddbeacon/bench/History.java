package dev.oddbeacon.bench;

import dev.oddbeacon.api.RepositoryInfo;
import java.io.BufferedOutputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Stream;

/** The past: reading it, searching commits, origins of lines. Over a history that is made up of lines of the source. */
final class History {
    private static final String NAME = "history";
    private static final long SEED = 6;
    private static final int COMMITS = 20_000;
    private static final int FILES = 1_500;
    private static final int EDITS = 6; // files that a commit changes
    private static final int LINES = 60; // that an edit replaces, at most
    private static final int OFTEN = 10; // one commit of so many changes the same file
    private static final String OFTEN_CHANGED = "often/changed.c";
    private static final int SEARCHES = 60;
    private static final int COMPARED = 4;
    private static final String[] PEOPLE = {"Ada Quill", "Bo Fender", "Cleo Marram", "Dag Holm", "Eli Skerry"};

    private final Running service;
    private final Path repository;
    private final Table table;

    private History(Running service, Path repository, Table table) {
        this.service = service;
        this.repository = repository;
        this.table = table;
    }

    static void measure(Running service, Path source, Path folder, Table table)
            throws IOException, InterruptedException {
        Path repository = folder.resolve("history.git");
        if (!Files.exists(repository)) {
            System.out.println("Making up a history of " + COMMITS + " commits");
            make(source, repository);
        }
        History history = new History(service, repository, table);
        long changedBytes = history.index();
        history.size(changedBytes);
        history.searches(source);
        history.origins();
    }

    private static void make(Path source, Path repository) throws IOException, InterruptedException {
        List<List<String>> pool = pool(source);
        Random random = new Random(SEED);
        List<List<String>> files = new ArrayList<>();
        for (int i = 0; i < FILES; i++) {
            files.add(new ArrayList<>(pool.get(i)));
        }
        List<String> often = new ArrayList<>(pool.getLast());
        Path unfinished = repository.resolveSibling("history.unfinished");
        Command.run(repository.getParent(), "git", "init", "-q", "--bare", "-b", "main", unfinished.toString());
        Process process = new ProcessBuilder("git", "fast-import", "--quiet")
                .directory(unfinished.toFile())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        try (OutputStream out = new BufferedOutputStream(process.getOutputStream(), 1 << 20)) {
            for (int commit = 1; commit <= COMMITS; commit++) {
                begin(out, commit, random, pool);
                int first = Math.min(FILES, (commit - 1) * 20);
                for (int file = first; file < Math.min(FILES, commit * 20); file++) {
                    write(out, path(file), files.get(file));
                }
                for (int edit = 0; edit < EDITS && commit * 20 > FILES; edit++) {
                    int file = random.nextInt(FILES);
                    edit(files.get(file), pool, random);
                    write(out, path(file), files.get(file));
                }
                if (commit % OFTEN == 0) {
                    edit(often, pool, random);
                    write(out, OFTEN_CHANGED, often);
                }
            }
        }
        if (process.waitFor() != 0) {
            throw new IOException("git fast-import failed");
        }
        Command.git(unfinished, "repack", "-adq");
        Files.move(unfinished, repository);
    }

    private static String path(int file) {
        return "d" + file % 40 + "/e" + file % 7 + "/f" + file + ".c";
    }

    private static List<List<String>> pool(Path source) throws IOException {
        List<Path> paths;
        try (Stream<Path> all = Files.walk(source.resolve("drivers"))) {
            paths = all.filter(path -> path.toString().endsWith(".c")).sorted().toList();
        }
        List<List<String>> pool = new ArrayList<>();
        for (int i = 0;
                i < paths.size() && pool.size() <= FILES * 2;
                i += Math.max(1, paths.size() / (FILES * 2 + 1))) {
            pool.add(Files.readString(paths.get(i), StandardCharsets.ISO_8859_1)
                    .lines()
                    .limit(600)
                    .toList());
        }
        return pool;
    }

    private static void begin(OutputStream out, int commit, Random random, List<List<String>> pool) throws IOException {
        List<String> words = pool.get(random.nextInt(pool.size()));
        String message = (words.isEmpty()
                        ? "change"
                        : words.get(random.nextInt(words.size())).strip()) + "\n\nNumber " + commit
                + " of the series.\n";
        String person = PEOPLE[random.nextInt(PEOPLE.length)];
        byte[] text = message.getBytes(StandardCharsets.UTF_8);
        print(
                out,
                "commit refs/heads/main\ncommitter " + person + " <"
                        + person.toLowerCase(Locale.ROOT).replace(' ', '.') + "@quillhaven.example> "
                        + (1_300_000_000L + commit * 15_000L) + " +0100\ndata " + text.length + "\n");
        out.write(text);
        print(out, "\n");
    }

    private static void edit(List<String> lines, List<List<String>> pool, Random random) {
        List<String> from = pool.get(random.nextInt(pool.size()));
        int count = Math.min(from.size(), 1 + random.nextInt(LINES));
        int start = random.nextInt(from.size() - count + 1);
        int at = random.nextInt(lines.size() + 1);
        lines.subList(at, Math.min(lines.size(), at + count)).clear();
        lines.addAll(at, from.subList(start, start + count));
    }

    private static void write(OutputStream out, String path, List<String> lines) throws IOException {
        byte[] text = (String.join("\n", lines) + "\n").getBytes(StandardCharsets.ISO_8859_1);
        print(out, "M 100644 inline " + path + "\ndata " + text.length + "\n");
        out.write(text);
        print(out, "\n");
    }

    private static void print(OutputStream out, String text) throws IOException {
        out.write(text.getBytes(StandardCharsets.UTF_8));
    }

    /** @return bytes of all changed lines */
    private long index() throws IOException, InterruptedException {
        long begun = System.nanoTime();
        service.add(NAME, repository);
        service.awaitReady(NAME);
        double lines = (System.nanoTime() - begun) / 1e9;
        long start = System.nanoTime();
        RepositoryInfo info = service.repository(NAME);
        while (!info.history().complete()) {
            Thread.sleep(50);
            info = service.repository(NAME);
        }
        double seconds = (System.nanoTime() - start) / 1e9;
        double reference = Command.seconds(repository, "git", "log", "-p");
        long bytes = Command.output(repository, List.of("git", "log", "-p"), 0, output -> {
            long sum = 0;
            BufferedReader reader =
                    new BufferedReader(new InputStreamReader(output, StandardCharsets.ISO_8859_1), 1 << 20);
            for (String line = reader.readLine(); line != null; line = reader.readLine()) {
                boolean isChange = (line.startsWith("+") || line.startsWith("-"))
                        && !line.startsWith("+++ ")
                        && !line.startsWith("--- ");
                sum += isChange ? line.length() : 0;
            }
            return sum;
        });
        table.note(
                "commits, bytes of changed lines",
                "%,d, %.0f MB; lines were searchable after %.1f s",
                info.history().commits(),
                bytes / 1e6,
                lines);
        table.target(
                "reading the past",
                "3 times git log -p",
                seconds <= 3 * reference,
                "%.2f times (%.1f s to %.1f s)",
                seconds / reference,
                seconds,
                reference);
        return bytes;
    }

    private void size(long changedBytes) throws IOException, InterruptedException {
        long bytes = service.status().pastBytes();
        table.target(
                "past on disk",
                "0.6 of the changed lines",
                bytes <= 0.6 * changedBytes,
                "%.2f (%.0f MB)",
                (double) bytes / changedBytes,
                bytes / 1e6);
    }

    private void searches(Path source) throws IOException, InterruptedException {
        Words words = new Words(source);
        List<String> drawn = words.words(SEARCHES);
        List<String> texts = words.texts(SEARCHES);
        List<String> mixed = new ArrayList<>();
        for (int i = 0; i < SEARCHES; i++) {
            mixed.add(Running.parameter("q", drawn.get(i)));
            mixed.add(
                    Running.parameter("adds", drawn.get(i)) + "&" + Running.parameter("by", PEOPLE[i % PEOPLE.length]));
            mixed.add(Running.parameter("touches", path(i * 7)) + "&after=2013");
            mixed.add(Running.parameter("q", "removes(\"" + drawn.get(i) + "\") not by(\"Bo\") before(2016)")
                    + "&reading=expression");
        }
        Figures all = millis(mixed, "search/commits");
        table.target(
                "searches for commits, mixed",
                "median 8 ms, 95th percentile 40 ms",
                all.at(0.5) <= 8 && all.at(0.95) <= 40,
                "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                all.at(0.5),
                all.at(0.95),
                all.at(1));
        table.waited("a search for commits", all);
        Figures adds = millis(
                texts.stream().map(text -> Running.parameter("adds", text)).toList(), "search/commits");
        table.note(
                "lines that came, a text of 4 to 23 characters",
                "median %.1f ms, 95 %% under %.1f ms",
                adds.at(0.5),
                adds.at(0.95));
        Figures ratios = new Figures();
        for (String text : texts.subList(0, COMPARED)) {
            double ours = millis(
                            List.of(Running.parameter(
                                            "q",
                                            "adds(\"" + escaped(text) + "\") or removes(\"" + escaped(text) + "\")")
                                    + "&reading=expression&case=match"),
                            "search/commits")
                    .at(0);
            double git = 1_000
                    * Command.seconds(
                            repository,
                            "git",
                            "log",
                            "--format=%H",
                            "-G" + text.replaceAll("[\\[\\](){}.*+?^$|\\\\]", "\\\\$0"));
            ratios.add(git / ours);
        }
        table.target(
                "the same, against git log -G",
                "100 times as fast in the median",
                ratios.at(0.5) >= 100,
                "%.0f times in the median, %.0f at least",
                ratios.at(0.5),
                ratios.at(0));
        Figures courses = millis(
                texts.stream()
                        .map(text -> Running.parameter("q", text) + "&repo=" + NAME)
                        .toList(),
                "search/lines/over-time");
        table.target(
                "lines over time",
                "95th percentile 150 ms",
                courses.at(0.95) <= 150,
                "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                courses.at(0.5),
                courses.at(0.95),
                courses.at(1));
        table.waited("lines over time", courses);
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\\\").replace("\"", "\\\"");
    }

    private Figures millis(List<String> searches, String what) throws IOException, InterruptedException {
        for (String search : searches) {
            service.millisOf("api/v1/" + what + "?" + search);
        }
        Figures figures = new Figures();
        for (String search : searches) {
            figures.add(service.millisOf("api/v1/" + what + "?" + search));
        }
        return figures;
    }

    private void origins() throws IOException, InterruptedException {
        double blame =
                service.millisOf("api/v1/repositories/" + NAME + "/blame?" + Running.parameter("path", OFTEN_CHANGED));
        table.target(
                "origins of lines of a file with 2,000 commits, asked for the first time",
                "1 s",
                blame <= 1_000,
                "%.0f ms; asked again %.1f ms; git blame %.0f ms",
                blame,
                service.millisOf("api/v1/repositories/" + NAME + "/blame?" + Running.parameter("path", OFTEN_CHANGED)),
                1_000 * Command.seconds(repository, "git", "blame", "main", "--", OFTEN_CHANGED));
        double log =
                service.millisOf("api/v1/repositories/" + NAME + "/log?" + Running.parameter("path", OFTEN_CHANGED));
        table.note(
                "the log of that file, 100 of 2,000",
                "%.0f ms; git log %.0f ms",
                log,
                1_000 * Command.seconds(repository, "git", "log", "--format=%H", "main", "--", OFTEN_CHANGED));
    }
}
