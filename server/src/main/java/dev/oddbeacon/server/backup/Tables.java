package dev.oddbeacon.server.backup;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/** The tables of the records, and what of them a backup holds. */
final class Tables {
    /**
     * What is made anew from repositories, and sessions: somebody who has signed out meanwhile must not be signed in
     * again. Any other table is backed up.
     */
    static final Set<String> LEFT_OUT = Set.of(
            "branch",
            "segment",
            "history",
            "job",
            "process",
            "claim",
            "cluster",
            "machine",
            "unneeded_object",
            "news",
            "repository_check",
            "SPRING_SESSION",
            "SPRING_SESSION_ATTRIBUTES",
            "flyway_schema_history");

    private Tables() {}

    /** All there are in the database, by name. */
    static Set<String> all(Connection database) throws SQLException {
        return new TreeSet<>(
                strings(
                        database,
                        "select table_name from information_schema.tables where table_schema = database() and table_type = 'BASE TABLE'"));
    }

    /** The number of the last migration. */
    static String schema(Connection database) throws SQLException {
        return strings(
                        database,
                        "select version from flyway_schema_history where success and version is not null order by installed_rank desc limit 1")
                .getFirst();
    }

    private static List<String> strings(Connection database, String query) throws SQLException {
        List<String> found = new ArrayList<>();
        try (PreparedStatement statement = database.prepareStatement(query);
                ResultSet rows = statement.executeQuery()) {
            while (rows.next()) {
                found.add(rows.getString(1));
            }
        }
        return found;
    }

    /** Whether a column holds bytes, not text. @param type one of {@link Types} */
    static boolean isBinary(int type) {
        return switch (type) {
            case Types.BINARY, Types.VARBINARY, Types.LONGVARBINARY, Types.BLOB -> true;
            default -> false;
        };
    }

    static String quoted(String name) {
        return "`" + name.replace("`", "``") + "`";
    }
}
