package dev.oddbeacon.server.backup;

import dev.oddbeacon.git.MirrorBundle;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import tools.jackson.databind.json.JsonMapper;

/**
 * Writes what cannot be made anew: the records as they are at one moment, the key that credentials are encrypted with, and
 * the mirrors of repositories that cannot be fetched from any more. The service may be running.
 *
 * <pre>
 * oddbeacon-20260401T060000Z/
 *   about.json              when, of which schema, rows, checksums
 *   records/TABLE.jsonl.gz  a row a line: an object of texts, bytes as base64
 *   secret-key
 *   mirrors/NAME.bundle     of Git
 * </pre>
 */
final class Backup {
    private static final DateTimeFormatter NAME =
            DateTimeFormatter.ofPattern("'oddbeacon-'yyyyMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);
    private static final int ROWS_AT_A_TIME = 1_000;
    private static final JsonMapper JSON = JsonMapper.shared();

    private final Connection database;
    private final Path data;
    private final Path folder;
    private final Map<String, Long> counts = new LinkedHashMap<>();
    private final List<String> kept = new ArrayList<>();

    private Backup(Connection database, Path data, Path folder) {
        this.database = database;
        this.data = data;
        this.folder = folder;
    }

    /** A backup that was written. */
    record Written(Path folder, About about) {}

    /**
     * Writes a backup into a new folder, which has its name once it is complete.
     *
     * @param data the data folder
     * @param into where the new folder is made
     */
    static Written write(Connection database, Path data, Path into) throws IOException, SQLException {
        Instant taken = Instant.now().truncatedTo(ChronoUnit.SECONDS);
        Path whole = into.resolve(NAME.format(taken));
        if (Files.exists(whole)) {
            throw new IOException(whole + " is there already. Wait a second.");
        }
        Files.createDirectories(into);
        Path unfinished = Files.createTempDirectory(
                into,
                "unfinished-",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        Backup backup = new Backup(database, data, unfinished);
        String schema = backup.records();
        backup.key();
        About about = new About(About.FORMAT, taken, schema, backup.counts, parts(unfinished), backup.kept);
        Files.writeString(
                unfinished.resolve(About.FILE),
                JSON.writerWithDefaultPrettyPrinter().writeValueAsString(about));
        Files.move(unfinished, whole);
        return new Written(whole, about);
    }

    /** All in one transaction, which sees what was there when it began. @return the schema */
    private String records() throws IOException, SQLException {
        Files.createDirectory(folder.resolve(About.RECORDS));
        database.setTransactionIsolation(Connection.TRANSACTION_REPEATABLE_READ);
        try (Statement statement = database.createStatement()) {
            statement.execute("start transaction with consistent snapshot, read only");
            String schema = Tables.schema(database);
            Set<String> tables = Tables.all(database);
            tables.removeAll(Tables.LEFT_OUT);
            for (String table : tables) {
                counts.put(table, table(table));
            }
            mirrors();
            statement.execute("commit");
            return schema;
        }
    }

    private long table(String table) throws IOException, SQLException {
        long count = 0;
        try (Statement statement = database.createStatement();
                BufferedWriter out = new BufferedWriter(new OutputStreamWriter(
                        new GZIPOutputStream(Files.newOutputStream(folder.resolve(About.RECORDS, table + ".jsonl.gz"))),
                        StandardCharsets.UTF_8))) {
            statement.setFetchSize(ROWS_AT_A_TIME);
            try (ResultSet rows = statement.executeQuery("select * from " + Tables.quoted(table))) {
                while (rows.next()) {
                    out.write(JSON.writeValueAsString(row(rows)));
                    out.write('\n');
                    count++;
                }
            }
        }
        return count;
    }

    private static Map<String, String> row(ResultSet rows) throws SQLException {
        ResultSetMetaData columns = rows.getMetaData();
        Map<String, String> row = new LinkedHashMap<>();
        for (int i = 1; i <= columns.getColumnCount(); i++) {
            if (rows.getObject(i) == null) {
                row.put(columns.getColumnName(i), null);
            } else if (Tables.isBinary(columns.getColumnType(i))) {
                row.put(columns.getColumnName(i), Base64.getEncoder().encodeToString(rows.getBytes(i)));
            } else if (rows.getObject(i) instanceof Boolean is) {
                row.put(columns.getColumnName(i), is ? "1" : "0");
            } else {
                row.put(columns.getColumnName(i), rows.getString(i));
            }
        }
        return row;
    }

    /** Of repositories that have failed, the mirror may be the only copy there is. */
    private void mirrors() throws IOException, SQLException {
        try (Statement statement = database.createStatement();
                ResultSet rows = statement.executeQuery("select id, name from repository where state = 'FAILED'")) {
            while (rows.next()) {
                Path mirror = data.resolve("mirrors", rows.getLong(1) + ".git");
                if (Files.isDirectory(mirror)) {
                    Path file = folder.resolve("mirrors", rows.getString(2) + ".bundle");
                    Files.createDirectories(file.getParent());
                    if (MirrorBundle.write(mirror, file)) {
                        kept.add(rows.getString(2));
                    }
                }
            }
        }
    }

    private void key() throws IOException {
        Path key = data.resolve(About.KEY);
        if (Files.exists(key)) {
            Files.copy(key, folder.resolve(About.KEY));
        }
    }

    private static List<About.Part> parts(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile)
                    .sorted()
                    .map(file -> part(folder, file))
                    .toList();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    static About.Part part(Path folder, Path file) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (InputStream in = new DigestInputStream(Files.newInputStream(file), digest)) {
                long bytes = in.transferTo(java.io.OutputStream.nullOutputStream());
                return new About.Part(
                        folder.relativize(file).toString(),
                        bytes,
                        HexFormat.of().formatHex(digest.digest()));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every Java has it
        }
    }
}
