package dev.oddbeacon.server.backup;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import javax.sql.DataSource;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/**
 * {@code backup DATA-FOLDER DIR} and {@code restore DATA-FOLDER BACKUP}, for the launcher, which says in the environment
 * where the records are. Exit status 3 if it fails, with the reason on standard error.
 */
public final class BackupMain {
    private static final int WRONG = 2;
    private static final int FAILED = 3;
    private static final Duration START = Duration.ofSeconds(60);
    private static final Duration PAUSE = Duration.ofMillis(100);

    private BackupMain() {}

    public static void main(String[] arguments) {
        System.exit(run(arguments, System.getenv()));
    }

    private static int run(String[] arguments, Map<String, String> environment) {
        if (arguments.length != 3) {
            System.err.println("oddbeacon: a data folder and a folder for backups are needed.");
            return WRONG;
        }
        ((Logger) LoggerFactory.getLogger(Logger.ROOT_LOGGER_NAME)).setLevel(Level.ERROR); // what fails is said below
        Path data = Path.of(arguments[1]);
        Path folder = Path.of(arguments[2]).toAbsolutePath();
        try {
            DataSource source = new DriverManagerDataSource(
                    environment.get("ODDBEACON_DATABASE_URL"),
                    environment.get("ODDBEACON_DATABASE_USER"),
                    environment.get("ODDBEACON_DATABASE_PASSWORD"));
            await(source);
            if (arguments[0].equals("backup")) {
                backup(source, data, folder);
            } else {
                restore(source, data, folder);
            }
            return 0;
        } catch (CannotRestoreException e) {
            System.err.println("oddbeacon: " + e.getMessage());
        } catch (SQLException e) {
            System.err.println("oddbeacon: the records cannot be reached or read: " + e.getMessage());
        } catch (IOException e) {
            System.err.println("oddbeacon: " + e.getClass().getSimpleName() + ": " + e.getMessage());
        }
        return FAILED;
    }

    /** MariaDB may just have been started. */
    private static void await(DataSource source) throws SQLException {
        long end = System.nanoTime() + START.toNanos();
        while (true) {
            try (Connection _ = source.getConnection()) {
                return;
            } catch (SQLException e) {
                if (System.nanoTime() > end) {
                    throw e;
                }
                LockSupport.parkNanos(PAUSE.toNanos());
            }
        }
    }

    private static void backup(DataSource source, Path data, Path into) throws IOException, SQLException {
        try (Connection database = source.getConnection()) {
            Backup.Written written = Backup.write(database, data, into);
            About about = written.about();
            System.out.println("Written: " + written.folder());
            System.out.println("  "
                    + counted(about, "repository", "repositories") + ", "
                    + counted(about, "account", "accounts") + ", "
                    + about.rows().values().stream().mapToLong(Long::longValue).sum() + " records in all, "
                    + about.files().stream().mapToLong(About.Part::bytes).sum() / 1_000 + " kB.");
            if (!about.kept().isEmpty()) {
                System.out.println("  With a copy of what could not be fetched from when it was taken: "
                        + String.join(", ", about.kept()) + ".");
            }
            System.out.println(
                    "  It holds the key that credentials are encrypted with. Keep it where nobody else reads it.");
        }
    }

    private static void restore(DataSource source, Path data, Path backup)
            throws CannotRestoreException, IOException, SQLException {
        About about = Restore.read(source, data, backup);
        System.out.println("Restored as of " + about.taken() + ": "
                + counted(about, "repository", "repositories") + ", "
                + counted(about, "account", "accounts") + ".");
        System.out.println("  They are fetched and indexed anew once the service is started.");
        if (!about.kept().isEmpty()) {
            System.out.println("  Copies of what could not be fetched from are in " + backup.resolve("mirrors")
                    + ", as bundles that git clone takes: " + String.join(", ", about.kept()) + ".");
        }
    }

    private static String counted(About about, String table, String many) {
        long count = about.rows().getOrDefault(table, 0L);
        return count + " " + (count == 1 ? table : many);
    }
}
