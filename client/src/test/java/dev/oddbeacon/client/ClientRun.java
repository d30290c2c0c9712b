package dev.oddbeacon.client;

import java.io.File;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.stream.Stream;

/**
 * The client as a process of its own, as its users start it.
 *
 * @param status with which it left
 * @param out what it wrote to standard output
 * @param err what it wrote to standard error
 */
public record ClientRun(int status, String out, String err) {
    private static final int LONGEST_SECONDS = 60;
    private static final Path FOLDER = folder();
    private static final String CLASSES = classes();

    private static Path folder() {
        try {
            Path folder = Files.createTempDirectory("oddbeacon-client");
            Runtime.getRuntime().addShutdownHook(new Thread(() -> delete(folder)));
            return folder;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void delete(Path folder) {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The class path, its folders as jars: only for those does the JVM keep what it has loaded, and starts in half the time. */
    private static String classes() {
        List<String> jars = new ArrayList<>();
        for (String entry : System.getProperty("java.class.path").split(File.pathSeparator)) {
            Path path = Path.of(entry);
            if (!Files.isDirectory(path)) {
                jars.add(entry);
            } else if (!path.endsWith("test-classes")) {
                jars.add(jar(path).toString());
            }
        }
        return String.join(File.pathSeparator, jars);
    }

    private static Path jar(Path classes) {
        Path jar = FOLDER.resolve(classes.toString().replace('/', '-') + ".jar");
        try (JarOutputStream out = new JarOutputStream(Files.newOutputStream(jar));
                Stream<Path> files = Files.walk(classes)) {
            for (Path file : files.filter(Files::isRegularFile).sorted().toList()) {
                out.putNextEntry(new JarEntry(classes.relativize(file).toString()));
                Files.copy(file, out);
            }
            return jar;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Runs it in a pipe. */
    public static ClientRun of(String url, String... arguments) {
        return run(List.of(), url, arguments);
    }

    /** Runs it as on a terminal. */
    public static ClientRun onTerminal(String url, String... arguments) {
        return run(List.of("-Doddbeacon.terminal=true"), url, arguments);
    }

    private static ClientRun run(List<String> properties, String url, String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-XX:+AutoCreateSharedArchive",
                "-XX:SharedArchiveFile=" + FOLDER.resolve("classes.jsa"),
                "-Xlog:disable"));
        command.addAll(properties);
        command.addAll(List.of("-cp", CLASSES, ClientMain.class.getName()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command);
        builder.environment().put("ODDBEACON_URL", url);
        builder.environment().put("NO_COLOR", "1");
        try {
            Process process = builder.start();
            process.getOutputStream().close();
            CompletableFuture<String> err =
                    CompletableFuture.supplyAsync(() -> text(process.errorReader(StandardCharsets.UTF_8)));
            String out = text(process.inputReader(StandardCharsets.UTF_8));
            if (!process.waitFor(LONGEST_SECONDS, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                throw new IllegalStateException("the client does not end: " + command);
            }
            return new ClientRun(process.exitValue(), out, err.join());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String text(Reader reader) {
        try (reader) {
            return reader.readAllAsString();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
