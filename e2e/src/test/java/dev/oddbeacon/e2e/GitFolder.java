package dev.oddbeacon.e2e;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** A Git repository of a test, made with Git itself. */
final class GitFolder {
    private final Path folder;

    private GitFolder(Path folder) {
        this.folder = folder;
    }

    static GitFolder create(Path folder) throws IOException {
        Files.createDirectories(folder);
        GitFolder created = new GitFolder(folder);
        created.git("init", "-q", "-b", "main");
        return created;
    }

    Path path() {
        return folder;
    }

    GitFolder write(String path, String text) throws IOException {
        return write(path, text.getBytes(StandardCharsets.UTF_8));
    }

    GitFolder write(String path, byte[] content) throws IOException {
        Path file = folder.resolve(path);
        Files.createDirectories(file.getParent());
        Files.write(file, content);
        return this;
    }

    GitFolder commit(String message) throws IOException {
        git("add", "-A", "-f");
        git("commit", "-q", "-m", message);
        return this;
    }

    String git(String... arguments) throws IOException {
        List<String> command =
                new ArrayList<>(List.of("git", "-c", "user.name=Test", "-c", "user.email=test@quillhaven.example"));
        command.addAll(List.of(arguments));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        Launched.environment(builder.environment());
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
