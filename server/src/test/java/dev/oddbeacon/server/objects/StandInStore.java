package dev.oddbeacon.server.objects;

import dev.oddbeacon.server.Settings;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;

/** A store that speaks S3, on loopback, with one bucket: {@code ferries}. */
public final class StandInStore implements AutoCloseable {
    private static final String KEY = "quay";
    private static final String SECRET = "tide-tables";

    private final Path folder;
    private final int port;
    private Process process;

    /** @param folder for what it keeps */
    public StandInStore(Path folder) throws IOException {
        this.folder = folder;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            this.port = free.getLocalPort();
        }
        Files.createDirectories(folder.resolve("buckets/ferries"));
        Files.writeString(
                folder.resolve("store.properties"), """
                s3proxy.authorization=aws-v2-or-v4
                s3proxy.identity=%1$s
                s3proxy.credential=%2$s
                s3proxy.endpoint=http://127.0.0.1:%3$d
                s3proxy.ignore-unknown-headers=true
                jclouds.provider=filesystem-nio2
                jclouds.identity=%1$s
                jclouds.credential=%2$s
                jclouds.filesystem.basedir=%4$s
                """.formatted(KEY, SECRET, port, folder.resolve("buckets")));
        start();
    }

    /** Starts it again, after {@link #stop}. */
    public void start() throws IOException {
        process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin/java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-Xmx200m",
                        "-jar",
                        Path.of("target/stand-in/store.jar").toString(),
                        "--properties",
                        folder.resolve("store.properties").toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("store.log").toFile())
                .start();
        long end = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (!isListening()) {
            if (!process.isAlive() || System.nanoTime() > end) {
                throw new IOException("it does not start: " + Files.readString(folder.resolve("store.log")));
            }
        }
    }

    private boolean isListening() {
        try (Socket _ = new Socket(InetAddress.getLoopbackAddress(), port)) {
            return true;
        } catch (IOException e) {
            return false;
        }
    }

    /** How it is reached. */
    Settings.Cluster settings() {
        return new Settings.Cluster(
                "ferries",
                "one",
                "",
                "s3://ferries/index",
                new Settings.Cluster.S3("http://127.0.0.1:" + port, "us-east-1", KEY, SECRET),
                Duration.ofHours(1),
                Duration.ofMillis(50));
    }

    /** The same, as arguments of the service. */
    public List<String> arguments() {
        return List.of(
                "--oddbeacon.cluster.objects=s3://ferries/index",
                "--oddbeacon.cluster.s3.endpoint=http://127.0.0.1:" + port,
                "--oddbeacon.cluster.s3.key=" + KEY,
                "--oddbeacon.cluster.s3.secret=" + SECRET);
    }

    /** It takes requests and does not answer them, until it goes on. */
    public void freeze() throws IOException {
        signal("STOP");
    }

    public void goOn() throws IOException {
        signal("CONT");
    }

    private void signal(String name) throws IOException {
        new ProcessBuilder("kill", "-" + name, Long.toString(process.pid()))
                .start()
                .onExit()
                .join();
    }

    public void stop() {
        process.destroyForcibly();
        process.onExit().join();
    }

    @Override
    public void close() {
        stop();
    }
}
