package dev.oddbeacon.e2e;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** A service that the launcher has started, as a user would: with a MariaDB of its own, in a folder of its own. */
final class Launched implements AutoCloseable {
    static final Path HOME = Path.of("").toAbsolutePath().getParent();
    private static final Duration START = Duration.ofSeconds(150);

    private final Process process;
    private final Path output;
    private final Path data;

    private Launched(Process process, Path output, Path data) {
        this.process = process;
        this.output = output;
        this.data = data;
    }

    /** Starts and waits until it is ready. */
    static Launched start(String kind, Path data, String... options) throws IOException, InterruptedException {
        Launched launched = begin(kind, data, options);
        long deadline = System.nanoTime() + START.toNanos();
        while (!launched.output().contains("Ready: ")) {
            if (!launched.process.isAlive() || System.nanoTime() > deadline) {
                launched.close();
                throw new IllegalStateException("not ready:\n" + launched.output() + launched.log());
            }
            Thread.sleep(100);
        }
        return launched;
    }

    /** Starts and does not wait. */
    static Launched begin(String kind, Path data, String... options) throws IOException {
        List<String> command =
                new ArrayList<>(List.of("sh", HOME.resolve("oddbeacon").toString(), kind, "--data", data.toString()));
        command.addAll(List.of(options));
        Path output = Files.createTempFile("launcher", ".log");
        ProcessBuilder builder = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(output.toFile())
                .redirectInput(new File("/dev/null"));
        environment(builder.environment());
        builder.environment().put("ODDBEACON_SECONDLOOKSTIME", "30s"); // what is found in time depends on the machine
        if (kind.equals("demo")) { // the first of all: those after it, and clients, start in half the time
            builder.environment().put("ODDBEACON_PREBUILT", "caches");
        }
        return new Launched(builder.start(), output, data);
    }

    static void environment(Map<String, String> environment) {
        environment.put("ODDBEACON_PREBUILT", "yes");
        environment.put("JAVA_HOME", System.getProperty("java.home"));
        environment.put("GIT_CONFIG_NOSYSTEM", "1");
        environment.put("GIT_CONFIG_GLOBAL", "/dev/null");
    }

    /** Waits for a line of the output that has a word. */
    String awaitLine(String word) throws IOException, InterruptedException {
        long deadline = System.nanoTime() + START.toNanos();
        while (true) {
            Optional<String> line =
                    output().lines().filter(each -> each.contains(word)).findFirst();
            if (line.isPresent()) {
                return line.get().strip();
            }
            if (System.nanoTime() > deadline) {
                throw new IllegalStateException("no " + word + " in:\n" + output());
            }
            Thread.sleep(100);
        }
    }

    String output() throws IOException {
        return Files.readString(output);
    }

    private String log() throws IOException {
        Path log = data.resolve("log/service.log");
        return Files.exists(log) ? Files.readString(log) : "";
    }

    /** Without a slash at its end. */
    String address() throws IOException {
        return Files.readString(data.resolve("address")).strip().replaceFirst("/$", "");
    }

    Path data() {
        return data;
    }

    /** The processes that it started and that live, by a word of their command line. */
    List<ProcessHandle> children(String word) {
        return process.descendants()
                .filter(child -> child.info().commandLine().orElse("").contains(word))
                .toList();
    }

    /** Waits for its end. @return the exit status */
    int exitStatus() throws InterruptedException {
        if (!process.waitFor(60, TimeUnit.SECONDS)) {
            throw new IllegalStateException("does not end");
        }
        return process.exitValue();
    }

    /** Ends it at once, and nothing that it has started. */
    void kill() {
        process.destroyForcibly().onExit().join();
    }

    /** Asks it to stop, as Ctrl-C does, and does not wait. */
    void interrupt() {
        process.destroy();
    }

    @Override
    public void close() {
        List<ProcessHandle> children = process.descendants().toList();
        interrupt();
        try {
            if (!process.waitFor(60, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        children.forEach(ProcessHandle::destroyForcibly);
    }
}
