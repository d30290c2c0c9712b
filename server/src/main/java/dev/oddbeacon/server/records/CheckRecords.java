package dev.oddbeacon.server.records;

import java.time.Instant;
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
            long repository,
            Instant tried,
            Optional<Instant> answered,
            Instant changed,
            String refs,
            int failures,
            Optional<String> problem) {}

    private static final int LONGEST = 2_000; // problem

    private final JdbcTemplate database;

    CheckRecords(JdbcTemplate database) {
        this.database = database;
    }

    public List<CheckRecord> all() {
        return database.query(
                "select repository_id, tried, answered, changed, refs, failures, problem from repository_check",
                (row, _) -> new CheckRecord(
                        row.getLong("repository_id"),
                        Times.instant(row, "tried").orElseThrow(),
                        Times.instant(row, "answered"),
                        Times.instant(row, "changed").orElseThrow(),
                        row.getString("refs"),
                        row.getInt("failures"),
                        Optional.ofNullable(row.getString("problem"))));
    }

    /** Writes them in the place of what was known before; those of repositories that were removed meanwhile are left out. */
    public void save(Collection<CheckRecord> checks) {
        database.batchUpdate(
                """
                insert into repository_check (repository_id, tried, answered, changed, refs, failures, problem)
                select id, ?, ?, ?, ?, ?, ? from repository where id = ?
                on duplicate key update tried = values(tried), answered = values(answered), changed = values(changed),
                    refs = values(refs), failures = values(failures), problem = values(problem)""",
                checks.stream()
                        .map(check -> new Object[] {
                            Times.utc(check.tried),
                            check.answered.map(Times::utc).orElse(null),
                            Times.utc(check.changed),
                            check.refs,
                            check.failures,
                            check.problem
                                    .map(why -> why.substring(0, Math.min(why.length(), LONGEST)))
                                    .orElse(null),
                            check.repository
                        })
                        .toList());
    }
}
