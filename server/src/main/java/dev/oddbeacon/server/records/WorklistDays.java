package dev.oddbeacon.server.records;

import java.time.LocalDate;
import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** How much of worklists was left at the end of each day, by repository and owners. */
@Component
public class WorklistDays {
    private final JdbcTemplate database;

    WorklistDays(JdbcTemplate database) {
        this.database = database;
    }

    /** @param owners of files, with spaces between; empty if nobody is named */
    public record Left(LocalDate day, String repository, String owners, int items) {}

    /** Counts what is open in a repository now. */
    public void count(long search, String repository, LocalDate today) {
        database.update(
                "insert ignore into worklist_left (search_id, day, repository, owners, items) values (?, ?, ?, '', 0)",
                search,
                today,
                repository);
        database.update( // owners of whose files no item is any more
                "insert ignore into worklist_left (search_id, day, repository, owners, items)"
                        + " select distinct search_id, ?, repository, owners, 0 from worklist_left"
                        + " where search_id = ? and repository = ?",
                today,
                search,
                repository);
        database.update(
                "update worklist_left set items = (select count(*) from worklist_item item where item.search_id = ?"
                        + " and item.repository = ? and item.owners = worklist_left.owners and state = 'open')"
                        + " where search_id = ? and repository = ? and day = ?",
                search,
                repository,
                search,
                repository,
                today);
        database.update(
                "insert ignore into worklist_left (search_id, day, repository, owners, items)"
                        + " select search_id, ?, repository, owners, sum(state = 'open') from worklist_item"
                        + " where search_id = ? and repository = ? group by owners",
                today,
                search,
                repository);
    }

    /** In the order of days. */
    public List<Left> of(long search) {
        return database.query(
                "select day, repository, owners, items from worklist_left where search_id = ?"
                        + " order by day, repository, owners",
                (row, _) -> new Left(row.getDate(1).toLocalDate(), row.getString(2), row.getString(3), row.getInt(4)),
                search);
    }
}
