package dev.oddbeacon.git;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * One run of the system's Git: with an environment of ours and no configuration but ours, no prompts, no hooks, and a
 * deadline. It is ended with all processes that it started.
 */
final class GitProcess {
    private static final int MOST_OUTPUT = 128 << 20;
    private static final int MOST_ERRORS = 64 << 10;
    private static final long POLL_MILLIS = 100;
    private static final List<String> KEPT =
            List.of("PATH", "HOME", "USER", "LOGNAME", "TMPDIR", "SSH_AUTH_SOCK", "GIT_SSL_CAINFO");

    /** @param lines of standard error, without those that report progress */
    record Result(int status, String output, String errors) {
        boolean isGood() {
            return status == 0;
        }
    }

    /** Git did not end in time. */
    static final class OverdueException extends IOException {
        OverdueException(String message) {
            super(message);
        }
    }

    private final List<String> command = new ArrayList<>(List.of("git"));
    private final ProcessBuilder builder = new ProcessBuilder(command);
    private Duration deadline = Duration.ofMinutes(5);
    private Duration stall = Duration.ofMinutes(5);
    private Consumer<String> progress = _ -> {};
    private BooleanSupplier stop = () -> false;
    private Optional<String> key = Optional.empty();

    /** @param configuration what stands in place of the user's and the system's */
    GitProcess(Path configuration) {
        Map<String, String> environment = builder.environment();
        environment.keySet().retainAll(KEPT);
        environment.putAll(Map.of(
                "LC_ALL", "C",
                "GIT_CONFIG_NOSYSTEM", "1",
                "GIT_CONFIG_GLOBAL", configuration.toString(),
                "GIT_TERMINAL_PROMPT", "0",
                "GIT_ASKPASS", "true",
                "SSH_ASKPASS", "true",
                "GIT_ALLOW_PROTOCOL", "",
                "GIT_OPTIONAL_LOCKS", "0"));
    }

    /** @param privateKey that ssh may use, and no other */
    GitProcess key(String privateKey) {
        key = Optional.of(privateKey);
        return this;
    }

    GitProcess environment(String name, String value) {
        builder.environment().put(name, value);
        return this;
    }

    String environment(String name) {
        return builder.environment().get(name);
    }

    List<String> command() {
        return List.copyOf(command);
    }

    GitProcess arguments(String... arguments) {
        return arguments(List.of(arguments));
    }

    GitProcess arguments(List<String> arguments) {
        command.addAll(arguments);
        return this;
    }

    /** @param whole for all of it @param withoutProgress for the time between two lines of progress */
    GitProcess within(Duration whole, Duration withoutProgress) {
        deadline = whole;
        stall = withoutProgress;
        return this;
    }

    /** @param lines takes each line that reports progress */
    GitProcess progress(Consumer<String> lines) {
        progress = lines;
        return this;
    }

    /** @param stopped asked several times a second; the run is ended when it says yes */
    GitProcess stop(BooleanSupplier stopped) {
        stop = stopped;
        return this;
    }

    /**
     * Runs it and waits.
     *
     * @throws CancellationException if it was told to stop
     * @throws OverdueException if it took too long
     * @throws DiskFullException if it failed because there is no room
     */
    Result run() throws IOException {
        if (key.isEmpty()) {
            return runIt();
        }
        try (SshAgent agent = SshAgent.of(key.get())) {
            environment("SSH_AUTH_SOCK", agent.socket().toString());
            return runIt();
        }
    }

    private Result runIt() throws IOException {
        Process process = builder.start();
        process.getOutputStream().close();
        AtomicLong lastNews = new AtomicLong(System.nanoTime());
        StringBuilder errors = new StringBuilder();
        ByteArrayOutputStream output = new ByteArrayOutputStream();
        Thread errorReader = Thread.ofVirtual().start(() -> readErrors(process.getErrorStream(), errors, lastNews));
        Thread outputReader = Thread.ofVirtual().start(() -> readOutput(process.getInputStream(), output, lastNews));
        long start = System.nanoTime();
        try {
            while (!process.waitFor(POLL_MILLIS, TimeUnit.MILLISECONDS)) {
                if (stop.getAsBoolean()) {
                    throw new CancellationException("Git was stopped");
                }
                long now = System.nanoTime();
                if (now - start > deadline.toNanos() || now - lastNews.get() > stall.toNanos()) {
                    throw new OverdueException("Git took longer than " + deadline.toMinutes()
                            + " min, or told nothing for " + stall.toSeconds() + " s");
                }
            }
            errorReader.join();
            outputReader.join();
            if (process.exitValue() != 0 && DiskFullException.isTold(errors.toString())) {
                throw new DiskFullException(errors.toString().strip());
            }
            return new Result(process.exitValue(), output.toString(StandardCharsets.UTF_8), errors.toString());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        } finally {
            end(process);
        }
    }

    private static void end(Process process) {
        try (Stream<ProcessHandle> children = process.descendants()) {
            children.forEach(ProcessHandle::destroyForcibly);
        }
        process.destroyForcibly();
    }

    /** Lines end with a line feed or, where progress is reported, with a carriage return. */
    private void readErrors(InputStream stream, StringBuilder errors, AtomicLong lastNews) {
        try (stream) {
            ByteArrayOutputStream line = new ByteArrayOutputStream();
            byte[] buffer = new byte[4 << 10];
            for (int length = stream.read(buffer); length >= 0; length = stream.read(buffer)) {
                lastNews.set(System.nanoTime());
                for (int i = 0; i < length; i++) {
                    if (buffer[i] == '\n' || buffer[i] == '\r') {
                        take(line.toString(StandardCharsets.UTF_8), buffer[i] == '\r', errors);
                        line.reset();
                    } else if (line.size() < MOST_ERRORS) {
                        line.write(buffer[i]);
                    }
                }
            }
            take(line.toString(StandardCharsets.UTF_8), false, errors);
        } catch (IOException e) {
            // it was ended
        }
    }

    private void take(String line, boolean isProgress, StringBuilder errors) {
        if (isProgress || line.contains("%") && line.contains("(")) {
            progress.accept(line);
        } else if (!line.isBlank() && errors.length() < MOST_ERRORS) {
            errors.append(line).append('\n');
        }
    }

    private static void readOutput(InputStream stream, ByteArrayOutputStream output, AtomicLong lastNews) {
        try (stream) {
            byte[] buffer = new byte[64 << 10];
            for (int length = stream.read(buffer);
                    length >= 0 && output.size() < MOST_OUTPUT;
                    length = stream.read(buffer)) {
                lastNews.set(System.nanoTime());
                output.write(buffer, 0, length);
            }
        } catch (IOException e) {
            // it was ended
        }
    }
}
