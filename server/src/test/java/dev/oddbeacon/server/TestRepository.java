package dev.oddbeacon.server;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A Git repository of a test, made with Git itself. Its commits have the same ids in every run. */
public final class TestRepository {
    private final Path folder;
    private int minutes;

    private TestRepository(Path folder) {
        this.folder = folder;
    }

    /** What {@link #birds} writes of. */
    public static final List<String> BIRDS = List.of("avocet", "bittern", "curlew", "dunlin");

    /** Some lines, each with one of these words and a number. */
    public static String birds(Random random) {
        return random.ints(1 + random.nextInt(30), 0, BIRDS.size())
                .mapToObj(bird -> BIRDS.get(bird) + " " + random.nextInt(1_000) + "\n")
                .collect(Collectors.joining());
    }

    /** How many lines of the files at its top have a word, as a scan finds them. */
    public int linesWith(String word) throws IOException {
        int lines = 0;
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                lines += (int) Files.readAllLines(file).stream()
                        .filter(line -> line.contains(word))
                        .count();
            }
        }
        return lines;
    }

    public static TestRepository create(Path folder) throws IOException {
        Files.createDirectories(folder);
        TestRepository created = new TestRepository(folder);
        created.git("init", "-q", "-b", "main");
        return created;
    }

    public Path path() {
        return folder;
    }

    public TestRepository write(String path, String text) throws IOException {
        Path file = folder.resolve(path);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        return this;
    }

    public TestRepository commit(String message) throws IOException {
        git("add", "-A", "-f");
        git("commit", "-q", "-m", message);
        minutes++;
        return this;
    }

    /** @param date as ISO 8601 */
    public TestRepository commit(String date, String message) throws IOException {
        git("add", "-A", "-f");
        at(date, "commit", "-q", "-m", message);
        return this;
    }

    public String git(String... arguments) throws IOException {
        return at(String.format("2026-05-01T%02d:%02d:00+0000", minutes / 60, minutes % 60), arguments);
    }

    private String at(String date, String... arguments) throws IOException {
        List<String> command =
                new ArrayList<>(List.of("git", "-c", "user.name=Test", "-c", "user.email=test@quillhaven.example"));
        command.addAll(List.of(arguments));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment().put("GIT_CONFIG_NOSYSTEM", "1");
        builder.environment().put("GIT_CONFIG_GLOBAL", "/dev/null");
        builder.environment().put("GIT_AUTHOR_DATE", date);
        builder.environment().put("GIT_COMMITTER_DATE", date);
        Process process = builder.start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            if (process.waitFor() != 0) {
                throw new IOException(command + ": " + output);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
        return output.strip();
    }
}
