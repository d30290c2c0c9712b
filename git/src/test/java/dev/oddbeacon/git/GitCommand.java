package dev.oddbeacon.git;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Runs Git itself, without the settings of the machine: the truth that tests hold against. */
final class GitCommand {
    private GitCommand() {}

    static String run(Path folder, String... arguments) throws IOException, InterruptedException {
        return new String(bytes(folder, arguments), StandardCharsets.UTF_8);
    }

    static byte[] bytes(Path folder, String... arguments) throws IOException, InterruptedException {
        return feed(folder, new byte[0], arguments);
    }

    static byte[] feed(Path folder, byte[] input, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("git", "-c", "core.quotePath=false"));
        command.addAll(List.of(arguments));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectError(ProcessBuilder.Redirect.INHERIT);
        builder.environment().put("GIT_CONFIG_NOSYSTEM", "1");
        builder.environment().put("GIT_CONFIG_GLOBAL", "/dev/null");
        Process process = builder.start();
        Thread feeder = Thread.ofVirtual().start(() -> {
            try (OutputStream out = process.getOutputStream()) {
                out.write(input);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        ByteArrayOutputStream output = new ByteArrayOutputStream();
        process.getInputStream().transferTo(output);
        feeder.join();
        if (process.waitFor() != 0) {
            throw new IOException(command + " failed");
        }
        return output.toByteArray();
    }
}
