package dev.oddbeacon.client.worktree;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The system's Git, asked in a folder. It is only asked: nothing here changes a repository. */
public record Git(Path folder) {
    /** In the current folder. */
    public static final Git HERE = new Git(Path.of(""));

    /** What it prints, without the last line break; nothing if it fails. */
    public Optional<String> text(String... arguments) {
        return bytes(arguments)
                .map(bytes -> new String(bytes, StandardCharsets.UTF_8))
                .map(text -> text.endsWith("\n") ? text.substring(0, text.length() - 1) : text);
    }

    /** The names that it prints with a zero byte after each; nothing if it fails. */
    public Optional<List<String>> names(String... arguments) {
        return bytes(arguments).map(bytes -> {
            List<String> names = new ArrayList<>();
            int start = 0;
            for (int at = 0; at < bytes.length; at++) {
                if (bytes[at] == 0) {
                    names.add(new String(bytes, start, at - start, StandardCharsets.UTF_8));
                    start = at + 1;
                }
            }
            return names;
        });
    }

    /** What it prints; nothing if it fails. */
    public Optional<byte[]> bytes(String... arguments) {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        try {
            Process git = new ProcessBuilder(command)
                    .directory(folder.toAbsolutePath().toFile())
                    .redirectInput(ProcessBuilder.Redirect.from(NOTHING.toFile()))
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            byte[] output = git.getInputStream().readAllBytes();
            return git.waitFor() == 0 ? Optional.of(output) : Optional.empty();
        } catch (IOException e) {
            throw new ServiceProblem("Git could not be started: " + e.getMessage(), ExitStatus.FAILED);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    private static final Path NOTHING = Path.of("/dev/null"); // an editor's protocol runs through our standard input
}
