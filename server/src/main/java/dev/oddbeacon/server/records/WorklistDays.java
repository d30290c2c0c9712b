package dev.oddbeacon.server.records;

import java.time.LocalDate;
import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** How much of worklists was left at the end of each day, by repository. */
@Component
public class WorklistDays {
    private final JdbcTemplate database;

    WorklistDays(JdbcTemplate database) {
        this.database = database;
    }

    public record Left(LocalDate day, String repository, int items) {}

    /** Counts what is open in a repository now. */
    public void count(long search, String repository, LocalDate today) {
        database.update(
                "replace into worklist_left (search_id, day, repository, items) select ?, ?, ?, count(*)"
                        + " from worklist_item where search_id = ? and repository = ? and state = 'open'",
                search,
                today,
                repository,
                search,
                repository);
    }

    /** In the order of days. */
    public List<Left> of(long search) {
        return database.query(
                "select day, repository, items from worklist_left where search_id = ? order by day, repository",
                (row, _) -> new Left(row.getDate(1).toLocalDate(), row.getString(2), row.getInt(3)),
                search);
    }
}
