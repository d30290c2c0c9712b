package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Repositories that change while the service is tortured, and what a plain scan finds in them. */
final class Victims {
    static final List<String> WORDS = List.of("avocet", "bittern", "curlew", "dunlin");
    static final String LARGE = "large";
    private static final int FILES = 25;
    private static final int LARGE_FILES = 260;
    private static final int LARGE_LINES = 6_000;

    private final Path folder;
    private final Random random;
    private final List<String> names = new ArrayList<>();
    private final Map<String, Map<String, Integer>> scans = new TreeMap<>(); // by name; what has not changed since

    Victims(Path folder, Random random) {
        this.folder = folder;
        this.random = random;
    }

    List<String> names() {
        return List.copyOf(names);
    }

    /** One of the small ones. */
    String any() {
        List<String> small = names.stream().filter(name -> !name.equals(LARGE)).toList();
        return small.get(random.nextInt(small.size()));
    }

    Path path(String name) {
        return folder.resolve(name);
    }

    /** Makes another one. */
    String add() throws IOException, InterruptedException {
        String name = "t" + names.size();
        begin(name);
        for (int file = 0; file < FILES; file++) {
            write(name, file);
        }
        commit(name);
        return name;
    }

    /** One that is searched in parts while it is read. */
    void addLarge() throws IOException, InterruptedException {
        begin(LARGE);
        for (int file = 0; file < LARGE_FILES; file++) {
            int number = file;
            Files.writeString(
                    path(LARGE).resolve("log" + file + ".txt"),
                    WORDS.get(file % WORDS.size()) + "\n"
                            + random.ints(LARGE_LINES, 0, 1 << 28)
                                    .mapToObj(line -> "tide " + Integer.toHexString(line) + " at " + number + "\n")
                                    .collect(Collectors.joining()));
        }
        commit(LARGE);
    }

    private void begin(String name) throws IOException, InterruptedException {
        Files.createDirectories(path(name));
        Command.git(path(name), "init", "-q", "-b", "main");
        names.add(name);
    }

    private void write(String name, int file) throws IOException {
        Files.writeString(
                path(name).resolve("f" + file + ".txt"),
                random.ints(1 + random.nextInt(40), 0, WORDS.size())
                        .mapToObj(word -> WORDS.get(word) + " " + random.nextInt(10_000) + "\n")
                        .collect(Collectors.joining()));
    }

    private void commit(String name) throws IOException, InterruptedException {
        scans.remove(name);
        Command.commit(path(name), "Push to " + name);
    }

    /** Changes a file, or takes one away. */
    void push(String name) throws IOException, InterruptedException {
        int file = random.nextInt(FILES + 5);
        if (random.nextInt(6) == 0) {
            Files.deleteIfExists(path(name).resolve("f" + file + ".txt"));
            write(name, (file + 1) % FILES);
        } else {
            write(name, file);
        }
        commit(name);
    }

    /** Puts another commit in the place of the last. */
    void rewrite(String name) throws IOException, InterruptedException {
        push(name);
        Command.git(path(name), "reset", "-q", "--hard", "HEAD~1");
        write(name, random.nextInt(FILES));
        Command.commit(path(name), "Push to " + name + ", otherwise", "--amend", "--allow-empty");
        scans.remove(name);
    }

    /** Until it is mended, it is no repository. */
    void breakUp(String name) throws IOException {
        Files.move(path(name).resolve(".git/HEAD"), path(name).resolve(".git/HEAD.away"));
    }

    void mend(String name) throws IOException {
        try {
            Files.move(path(name).resolve(".git/HEAD.away"), path(name).resolve(".git/HEAD"));
        } catch (NoSuchFileException e) {
            // it is whole
        }
    }

    /** Lines with each word, as a scan of its files finds them, and the number of its commits under "commits". */
    Map<String, Integer> scan(String name) throws IOException, InterruptedException {
        Map<String, Integer> known = scans.get(name);
        if (known != null) {
            return known;
        }
        Map<String, Integer> found = new TreeMap<>();
        WORDS.forEach(word -> found.put(word, 0));
        try (Stream<Path> files = Files.list(path(name))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                for (String line : Files.readAllLines(file)) {
                    WORDS.stream().filter(line::contains).forEach(word -> found.merge(word, 1, Integer::sum));
                }
            }
        }
        found.put(
                "commits",
                Command.output(
                        path(name),
                        List.of("git", "rev-list", "--count", "HEAD"),
                        0,
                        output -> Integer.parseInt(
                                new String(output.readAllBytes(), StandardCharsets.US_ASCII).strip())));
        scans.put(name, found);
        return found;
    }
}
