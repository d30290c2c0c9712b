package dev.oddbeacon.server.records;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** What was known of the origins of repositories. Many are written at a time, several times a minute. */
@Component
public class CheckRecords {
    /** @param repository id of its record */
    public record CheckRecord(
            long repository, Instant tried, Optional<Instant> answered, Instant changed, String refs, int failures) {}

    private final JdbcTemplate database;

    CheckRecords(JdbcTemplate database) {
        this.database = database;
    }

    public List<CheckRecord> all() {
        return database.query(
                "select repository_id, tried, answered, changed, refs, failures from repository_check",
                (row, _) -> new CheckRecord(
                        row.getLong("repository_id"),
                        instant(row, "tried").orElseThrow(),
                        instant(row, "answered"),
                        instant(row, "changed").orElseThrow(),
                        row.getString("refs"),
                        row.getInt("failures")));
    }

    /** Writes them in the place of what was known before; those of repositories that were removed meanwhile are left out. */
    public void save(Collection<CheckRecord> checks) {
        database.batchUpdate(
                """
                insert into repository_check (repository_id, tried, answered, changed, refs, failures)
                select id, ?, ?, ?, ?, ? from repository where id = ?
                on duplicate key update tried = values(tried), answered = values(answered), changed = values(changed),
                    refs = values(refs), failures = values(failures)""",
                checks.stream()
                        .map(check -> new Object[] {
                            utc(check.tried),
                            check.answered.map(CheckRecords::utc).orElse(null),
                            utc(check.changed),
                            check.refs,
                            check.failures,
                            check.repository
                        })
                        .toList());
    }

    private static LocalDateTime utc(Instant instant) {
        return LocalDateTime.ofInstant(instant, ZoneOffset.UTC);
    }

    private static Optional<Instant> instant(ResultSet row, String column) throws SQLException {
        return Optional.ofNullable(row.getObject(column, LocalDateTime.class))
                .map(time -> time.toInstant(ZoneOffset.UTC));
    }
}
