package dev.oddbeacon.server.records;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.flywaydb.core.api.configuration.FluentConfiguration;
import org.junit.jupiter.api.Test;

/** Tables come to the same end whatever a start was doing to them when it was killed. */
class MigrationsTest {
    private final DataSource source = dataSource();

    private static DataSource dataSource() {
        Map<String, String> options = Database.shared().create().stream()
                .collect(Collectors.toMap(
                        option ->
                                option.substring(option.lastIndexOf('.', option.indexOf('=')) + 1, option.indexOf('=')),
                        option -> option.substring(option.indexOf('=') + 1)));
        return Flyway.configure()
                .dataSource(options.get("url"), options.get("user"), options.get("password"))
                .load()
                .getConfiguration()
                .getDataSource();
    }

    private static FluentConfiguration flyway(DataSource of) {
        return Flyway.configure().dataSource(of);
    }

    /** The statements of a migration. */
    private static List<String> statements(MigrationInfo migration) throws IOException {
        try (InputStream in = MigrationsTest.class.getResourceAsStream("/db/migration/" + migration.getScript())) {
            return Arrays.stream(new String(in.readAllBytes(), StandardCharsets.UTF_8).split(";\\s*(\n|$)"))
                    .filter(statement -> !statement.isBlank())
                    .toList();
        }
    }

    private static List<String> rows(DataSource of, String query) throws SQLException {
        List<String> rows = new ArrayList<>();
        try (Connection connection = of.getConnection();
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(query)) {
            while (found.next()) {
                List<String> row = new ArrayList<>();
                for (int i = 1; i <= found.getMetaData().getColumnCount(); i++) {
                    row.add(found.getString(i));
                }
                rows.add(String.join(" ", row.stream().map(String::valueOf).toList()));
            }
        }
        return rows;
    }

    private static void execute(DataSource of, String command) throws SQLException {
        try (Connection connection = of.getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute(command);
        }
    }

    /** Columns, keys and references of all tables. */
    private static List<String> schema(DataSource of) throws SQLException {
        List<String> told = new ArrayList<>();
        told.addAll(rows(
                of,
                "select table_name, ordinal_position, column_name, column_type, is_nullable, column_default, extra,"
                        + " collation_name from information_schema.columns where table_schema = database()"
                        + " order by table_name, ordinal_position"));
        told.addAll(rows(
                of,
                "select table_name, index_name, seq_in_index, column_name, non_unique from information_schema.statistics"
                        + " where table_schema = database() order by table_name, index_name, seq_in_index"));
        told.addAll(rows(
                of,
                "select table_name, referenced_table_name, delete_rule from information_schema.referential_constraints"
                        + " where constraint_schema = database() order by table_name, referenced_table_name"));
        return told;
    }

    private static List<String> clean() throws SQLException {
        DataSource clean = dataSource();
        new Migrations().migrate(flyway(clean).load());
        return schema(clean);
    }

    @Test
    void eachIsRepeatedWhateverOfItWasDone() throws IOException, SQLException {
        MigrationInfo[] all = flyway(source).load().info().all();
        flyway(source).baselineVersion("0").load().baseline(); // the list of migrations is made first
        assertThat(all).hasSizeGreaterThan(15);
        for (int i = 0; i < all.length; i++) {
            for (String statement : statements(all[i])) {
                execute(source, statement);
            }
            String version = all[i].getVersion().getVersion();
            if (i > 0 && i % 2 == 0) { // killed before it could say so, or after
                execute(
                        source,
                        "insert into flyway_schema_history (installed_rank, version, description, type, script, checksum,"
                                + " installed_by, execution_time, success) values (" + (i + 100) + ", '" + version
                                + "', 'x', 'SQL', '" + all[i].getScript() + "', 1, 'x', 1, 0)");
            }
            new Migrations().migrate(flyway(source).target(version).load());
        }
        assertThat(schema(source)).isEqualTo(clean());
    }

    @Test
    void textsThatWereChangedSinceAreTaken() throws SQLException {
        new Migrations().migrate(flyway(source).target("9").load());
        execute(source, "update flyway_schema_history set checksum = checksum + 1");
        new Migrations().migrate(flyway(source).load());
        assertThat(schema(source)).isEqualTo(clean());
    }

    @Test
    void whatALaterVersionHasAddedStays() throws SQLException {
        Migrations migrations = new Migrations();
        migrations.migrate(flyway(source).load());
        execute(source, "create table later (id int)");
        execute(
                source,
                "insert into flyway_schema_history (installed_rank, version, description, type, script, checksum,"
                        + " installed_by, execution_time, success) values (999, '999', 'later', 'SQL', 'V999__later.sql',"
                        + " 1, 'x', 1, 1)");
        migrations.migrate(flyway(source).load());
        assertThat(rows(source, "select version from flyway_schema_history where installed_rank = 999"))
                .containsExactly("999");
        assertThat(rows(source, "select * from later")).isEmpty();
    }
}
