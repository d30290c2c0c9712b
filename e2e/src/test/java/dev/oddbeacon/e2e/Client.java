package dev.oddbeacon.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** The client as people run it: a process, through the launcher. */
final class Client {
    private Client() {}

    record Result(int status, String out, String err) {
        List<String> lines() {
            return out.lines().toList();
        }
    }

    /** Runs a command against a service, in a pipe. */
    static Result run(String address, String... arguments) {
        return run(address, Launched.HOME, "", Map.of(), arguments);
    }

    /**
     * Runs a command where somebody stands.
     *
     * @param input what comes through the pipe
     * @param environment on top of that of the tests
     */
    static Result run(String address, Path folder, String input, Map<String, String> environment, String... arguments) {
        try {
            List<String> command = new ArrayList<>(
                    List.of("sh", Launched.HOME.resolve("oddbeacon").toString()));
            command.addAll(Arrays.asList(arguments));
            Path in = Files.writeString(Files.createTempFile("in", ".txt"), input);
            Path out = Files.createTempFile("out", ".txt");
            Path err = Files.createTempFile("err", ".txt");
            ProcessBuilder builder = new ProcessBuilder(command)
                    .redirectOutput(out.toFile())
                    .redirectError(err.toFile())
                    .redirectInput(in.toFile());
            Launched.environment(builder.environment());
            builder.environment().put("ODDBEACON_URL", address);
            builder.environment().putAll(environment);
            builder.directory(folder.toFile());
            Process process = builder.start();
            if (!process.waitFor(120, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                throw new IllegalStateException("does not end: " + command);
            }
            Result result = new Result(process.exitValue(), Files.readString(out), Files.readString(err));
            Files.delete(in);
            Files.delete(out);
            Files.delete(err);
            return result;
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
