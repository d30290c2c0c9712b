package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Repositories that hold some of the files of the source, made without copying them: their objects stay where they are.
 */
final class Generated {
    private final Path source;
    private final List<String> files; // "MODE ID PATH"

    Generated(Path source) throws IOException, InterruptedException {
        this.source = source;
        String listed = Command.output(
                source,
                List.of("git", "ls-tree", "-r", "HEAD"),
                0,
                input -> new String(input.readAllBytes(), StandardCharsets.UTF_8));
        files = listed.lines()
                .filter(line -> line.startsWith("100"))
                .map(line -> line.replaceFirst(" blob ", " ").replace('\t', ' '))
                .toList();
    }

    /** As many files as are wanted, spread evenly over the source. */
    List<String> spread(int count) {
        List<String> chosen = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            chosen.add(files.get((int) ((long) i * files.size() / count)));
        }
        return chosen;
    }

    int count() {
        return files.size();
    }

    /** Makes a repository with one commit of some files. */
    Path repository(Path folder, List<String> chosen) throws IOException, InterruptedException {
        Files.createDirectories(folder);
        Command.git(folder, "init", "-q", "--initial-branch=main");
        Files.writeString(folder.resolve(".git/objects/info/alternates"), source.resolve(".git/objects") + "\n");
        commit(folder, "", chosen);
        return folder;
    }

    /** Adds a commit with some more files. */
    void commit(Path folder, List<String> more) throws IOException, InterruptedException {
        commit(folder, "from refs/heads/main^0\n", more);
    }

    private static void commit(Path folder, String from, List<String> chosen) throws IOException, InterruptedException {
        StringBuilder commit = new StringBuilder(
                "commit refs/heads/main\ncommitter Bench <bench@quillhaven.example> 1700000000 +0000\ndata 1\nx\n");
        commit.append(from);
        chosen.forEach(file -> commit.append("M ").append(file).append('\n'));
        Command.feed(folder, commit.toString(), "git", "fast-import", "--quiet");
    }
}
