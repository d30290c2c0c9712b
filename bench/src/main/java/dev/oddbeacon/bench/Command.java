package dev.oddbeacon.bench;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Runs other programs. */
final class Command {
    private Command() {}

    interface Reader<T> {
        T read(InputStream output) throws IOException;
    }

    static void run(Path folder, String... command) throws IOException, InterruptedException {
        output(folder, List.of(command), 0, InputStream::readAllBytes);
    }

    /** Commits all files of a work tree, ignored ones as well. @param more options of the commit */
    static void commit(Path folder, String message, String... more) throws IOException, InterruptedException {
        git(folder, "add", "-f", "-A", ".");
        List<String> commit = new ArrayList<>(List.of(
                "-c", "user.name=Bench", "-c", "user.email=bench@quillhaven.example", "commit", "-q", "-m", message));
        commit.addAll(List.of(more));
        git(folder, commit.toArray(String[]::new));
    }

    static void git(Path folder, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        run(folder, command.toArray(String[]::new));
    }

    /** @param mostStatus the highest exit status that is no failure */
    static <T> T output(Path folder, List<String> command, int mostStatus, Reader<T> reader)
            throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .redirectInput(new File("/dev/null"));
        builder.environment().put("GIT_CONFIG_NOSYSTEM", "1");
        builder.environment().put("GIT_CONFIG_GLOBAL", "/dev/null");
        builder.environment().put("LC_ALL", "C.UTF-8");
        Process process = builder.start();
        T result = reader.read(process.getInputStream());
        int status = process.waitFor();
        if (status > mostStatus) {
            throw new IOException(command + " ended with status " + status);
        }
        return result;
    }

    /** Runs a command that reads a text. */
    static void feed(Path folder, String input, String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        try (OutputStream out = process.getOutputStream()) {
            out.write(input.getBytes(StandardCharsets.UTF_8));
        }
        if (process.waitFor() != 0) {
            throw new IOException(List.of(command) + " failed in " + folder);
        }
    }

    /** Seconds that a command takes, its output thrown away. */
    static double seconds(Path folder, String... command) throws IOException, InterruptedException {
        long start = System.nanoTime();
        output(folder, List.of(command), 1, input -> input.transferTo(java.io.OutputStream.nullOutputStream()));
        return (System.nanoTime() - start) / 1e9;
    }
}
