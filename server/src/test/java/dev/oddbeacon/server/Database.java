package dev.oddbeacon.server;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/** A MariaDB of the tests, in a folder of its own; each test takes databases of its own from it. */
public final class Database implements AutoCloseable {
    private static final String USER = "oddbeacon";
    private static final String PASSWORD = "tests";
    private static final AtomicInteger NUMBERS = new AtomicInteger();
    private static Database shared;

    private final Path folder;
    private final int port;
    private final Process process;

    private Database(Path folder, int port, Process process) {
        this.folder = folder;
        this.port = port;
        this.process = process;
    }

    /** The one that all tests share which do nothing to it. */
    public static synchronized Database shared() {
        if (shared == null) {
            shared = start();
            Runtime.getRuntime().addShutdownHook(new Thread(shared::close));
        }
        return shared;
    }

    public static Database start() {
        try {
            Path folder = Files.createTempDirectory("oddbeacon-mariadb");
            String user = System.getProperty("user.name");
            run(
                    List.of(
                            "mariadb-install-db",
                            "--no-defaults",
                            "--user=" + user,
                            "--datadir=" + folder.resolve("data"),
                            "--skip-test-db",
                            "--auth-root-authentication-method=socket"),
                    folder);
            Path init = Files.writeString(
                    folder.resolve("init.sql"),
                    "create user '" + USER + "'@'127.0.0.1' identified by '" + PASSWORD + "';\ngrant all on *.* to '"
                            + USER + "'@'127.0.0.1';\n");
            int port = freePort();
            List<String> command = List.of(
                    "mariadbd",
                    "--no-defaults",
                    "--user=" + user,
                    "--datadir=" + folder.resolve("data"),
                    "--bind-address=127.0.0.1",
                    "--port=" + port,
                    "--socket=" + folder.resolve("s"),
                    "--pid-file=" + folder.resolve("pid"),
                    "--init-file=" + init,
                    "--skip-name-resolve",
                    "--skip-log-bin",
                    "--innodb-buffer-pool-size=32M",
                    "--performance-schema=off",
                    "--innodb-flush-log-at-trx-commit=0",
                    "--character-set-server=utf8mb4");
            Database database =
                    new Database(folder, port, builder(command, folder).start());
            database.await();
            return database;
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static ProcessBuilder builder(List<String> command, Path folder) {
        ProcessBuilder builder = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(
                        ProcessBuilder.Redirect.appendTo(folder.resolve("log").toFile()));
        builder.environment().merge("PATH", "/usr/sbin", (path, more) -> path + ":" + more);
        return builder;
    }

    private static void run(List<String> command, Path folder) throws IOException {
        try {
            if (builder(command, folder).start().waitFor() != 0) {
                throw new IOException(command + ": " + Files.readString(folder.resolve("log")));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }

    private void await() throws IOException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (true) {
            try (Connection _ = connect("mysql")) {
                return;
            } catch (SQLException e) {
                if (!process.isAlive() || System.nanoTime() > deadline) {
                    throw new IOException("MariaDB does not start: " + Files.readString(folder.resolve("log")), e);
                }
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(50);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private Connection connect(String name) throws SQLException {
        return DriverManager.getConnection(url(name), USER, PASSWORD);
    }

    private String url(String name) {
        return "jdbc:mariadb://127.0.0.1:" + port + "/" + name;
    }

    /** Makes an empty database. @return options for a service that uses it */
    public List<String> create() {
        String name = "test" + NUMBERS.incrementAndGet();
        try (Connection connection = connect("mysql");
                var statement = connection.createStatement()) {
            statement.execute("create database " + name + " character set utf8mb4");
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
        return List.of(
                "--oddbeacon.database.url=" + url(name),
                "--oddbeacon.database.user=" + USER,
                "--oddbeacon.database.password=" + PASSWORD);
    }

    /** Executes a statement in a database that {@link #create} made. */
    public void execute(List<String> options, String statement) {
        String url = options.getFirst().substring("--oddbeacon.database.url=".length());
        try (Connection connection = DriverManager.getConnection(url, USER, PASSWORD);
                var sent = connection.createStatement()) {
            sent.execute(statement);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Stops it from doing anything, without ending it: connections stay open and nothing answers. */
    public void freeze() {
        signal("STOP");
    }

    public void thaw() {
        signal("CONT");
    }

    private void signal(String name) {
        try {
            new ProcessBuilder("kill", "-" + name, String.valueOf(process.pid()))
                    .start()
                    .waitFor();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        thaw();
        process.destroyForcibly();
        List<Path> files = new ArrayList<>();
        try (var all = Files.walk(folder)) {
            all.forEach(files::add);
            process.waitFor();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        files.reversed().forEach(file -> file.toFile().delete());
    }
}
