package dev.oddbeacon.server.backup;

import dev.oddbeacon.core.text.Visible;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.GZIPInputStream;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;
import org.flywaydb.core.api.MigrationInfo;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Puts a backup into a database that is empty, and a data folder that has no key of its own: the tables are made as they
 * were when the backup was taken, filled, and then brought up to date like those of any earlier version. The index is
 * made anew from the repositories at the next start. If it fails, the database is empty again.
 */
final class Restore {
    private static final int ROWS_AT_A_TIME = 500;
    private static final JsonMapper JSON = JsonMapper.shared();

    private final DataSource source;
    private final Path data;
    private final Path backup;
    private final About about;

    private Restore(DataSource source, Path data, Path backup, About about) {
        this.source = source;
        this.data = data;
        this.backup = backup;
        this.about = about;
    }

    /** @throws CannotRestoreException if nothing can be restored; nothing was changed, or all that was is undone */
    static About read(DataSource source, Path data, Path backup)
            throws CannotRestoreException, IOException, SQLException {
        About about = checked(backup);
        Restore restore = new Restore(source, data, backup, about);
        restore.checkPlace();
        restore.run();
        return about;
    }

    private static About checked(Path backup) throws CannotRestoreException, IOException {
        Path file = backup.resolve(About.FILE);
        if (!Files.isRegularFile(file)) {
            throw new CannotRestoreException(
                    backup
                            + " is no backup: it has no about.json. Name the folder that a backup made, oddbeacon-… with its time.");
        }
        About about;
        try {
            about = JSON.readValue(Files.readString(file), About.class);
        } catch (JacksonException e) {
            throw new CannotRestoreException(file + " cannot be read: " + Visible.escaped(e.getOriginalMessage()));
        }
        if (about.format() > About.FORMAT) {
            throw new CannotRestoreException("This backup was made by a later version. Restore it with that one.");
        }
        for (About.Part part : about.files()) {
            Path path = backup.resolve(part.path()).normalize();
            if (!path.startsWith(backup.normalize())
                    || !Files.isRegularFile(path)
                    || !isAsWritten(backup, path, part)) {
                throw new CannotRestoreException(
                        part.path()
                                + " of this backup is missing or not as it was written. Take another copy of the backup, or an earlier one.");
            }
        }
        return about;
    }

    private static boolean isAsWritten(Path backup, Path path, About.Part part) throws IOException {
        try {
            return Backup.part(backup.normalize(), path).equals(part);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private void checkPlace() throws CannotRestoreException, SQLException {
        try (Connection database = source.getConnection()) {
            if (!Tables.all(database).isEmpty()) {
                throw new CannotRestoreException(
                        "There are records already. Restore into an empty data folder: --data DIR.");
            }
        }
        if (Files.exists(data.resolve(About.KEY)) && Files.exists(backup.resolve(About.KEY))) {
            throw new CannotRestoreException(
                    data + " has a key already. Restore into an empty data folder: --data DIR.");
        }
        boolean isKnown = false;
        for (MigrationInfo migration : flyway("latest").info().all()) {
            isKnown |= migration.getVersion() != null
                    && migration.getVersion().getVersion().equals(about.schema());
        }
        if (!isKnown) {
            throw new CannotRestoreException("This backup was made by a later version. Restore it with that one.");
        }
    }

    private Flyway flyway(String target) {
        return Flyway.configure()
                .dataSource(source)
                .target(target)
                .cleanDisabled(false)
                .load();
    }

    private void run() throws CannotRestoreException, IOException, SQLException {
        boolean done = false;
        try {
            flyway(about.schema()).migrate();
            fill();
            flyway("latest").migrate();
            begin();
            if (Files.exists(backup.resolve(About.KEY))) {
                Files.copy(backup.resolve(About.KEY), data.resolve(About.KEY));
            }
            done = true;
        } catch (FlywayException e) {
            throw new CannotRestoreException("The tables cannot be made: " + e.getMessage());
        } finally {
            if (!done) {
                flyway("latest").clean();
            }
        }
    }

    private void fill() throws CannotRestoreException, IOException, SQLException {
        try (Connection database = source.getConnection();
                Statement statement = database.createStatement()) {
            statement.execute("set foreign_key_checks = 0");
            database.setAutoCommit(false);
            Set<String> tables = Tables.all(database);
            for (Map.Entry<String, Long> table : about.rows().entrySet()) {
                if (!tables.contains(table.getKey()) || Tables.LEFT_OUT.contains(table.getKey())) {
                    throw new CannotRestoreException(
                            "The backup has a table that its version does not: " + table.getKey());
                }
                long filled = fill(database, table.getKey());
                if (filled != table.getValue()) {
                    throw new CannotRestoreException("The backup has " + filled + " of the " + table.getValue()
                            + " rows of " + table.getKey() + ". Take an earlier one.");
                }
            }
            database.commit();
        }
    }

    private long fill(Connection database, String table) throws IOException, SQLException {
        Map<String, Integer> types = types(database, table);
        List<String> columns = List.copyOf(types.keySet());
        String insert = "insert into " + Tables.quoted(table) + " ("
                + String.join(", ", columns.stream().map(Tables::quoted).toList()) + ") values ("
                + String.join(", ", columns.stream().map(_ -> "?").toList()) + ")";
        long count = 0;
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                        new GZIPInputStream(Files.newInputStream(backup.resolve(About.RECORDS, table + ".jsonl.gz"))),
                        StandardCharsets.UTF_8));
                PreparedStatement statement = database.prepareStatement(insert)) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                Map<String, String> row = JSON.readValue(line, new TypeReference<Map<String, String>>() {});
                for (int i = 0; i < columns.size(); i++) {
                    String value = row.get(columns.get(i));
                    if (value != null && Tables.isBinary(types.get(columns.get(i)))) {
                        statement.setBytes(i + 1, Base64.getDecoder().decode(value));
                    } else {
                        statement.setString(i + 1, value);
                    }
                }
                statement.addBatch();
                count++;
                if (count % ROWS_AT_A_TIME == 0) {
                    statement.executeBatch();
                }
            }
            statement.executeBatch();
        }
        return count;
    }

    private static Map<String, Integer> types(Connection database, String table) throws SQLException {
        Map<String, Integer> types = new LinkedHashMap<>();
        try (Statement statement = database.createStatement();
                ResultSet nothing = statement.executeQuery("select * from " + Tables.quoted(table) + " limit 0")) {
            ResultSetMetaData columns = nothing.getMetaData();
            for (int i = 1; i <= columns.getColumnCount(); i++) {
                types.put(columns.getColumnName(i), columns.getColumnType(i));
            }
        }
        return types;
    }

    /** All repositories are as if they had just been registered: the start queues those that have no branch and no problem. */
    private void begin() throws SQLException {
        try (Connection database = source.getConnection();
                Statement statement = database.createStatement()) {
            statement.execute("""
                    update repository set state = 'READY', problem = null, history_complete = false, history_commits = 0,
                        history_oldest = null, history_cut = 0, history_without_lines = 0, history_problem = null""");
        }
    }
}
