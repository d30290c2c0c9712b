package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** What processes tell one another. */
@Component
public class NewsRecords {
    /** @param subject the number of a record, or 0 */
    public record NewsRecord(long id, String kind, long subject, String detail) {}

    private final JdbcTemplate database;

    NewsRecords(JdbcTemplate database) {
        this.database = database;
    }

    /**
     * Tells the others, in the transaction that is open. Until it ends, nobody can strike the process off: it changes
     * the row of the process, which the nodes of a Galera cluster compare, while they do not know of each other's locks.
     *
     * @return whether the process is one; else nothing was told
     */
    public boolean add(long process, String kind, long subject, String detail) {
        if (database.update("update process set told = told + 1 where id = ?", process) == 0) {
            return false;
        }
        database.update(
                "insert into news (process_id, kind, subject, detail) values (?, ?, ?, ?)",
                process,
                kind,
                subject,
                detail);
        return true;
    }

    /** What others than a process have told after some news, in their order. */
    public List<NewsRecord> after(long id, long process) {
        return database.query(
                "select id, kind, subject, detail from news where id > ? and process_id <> ? order by id",
                (row, _) -> new NewsRecord(
                        row.getLong("id"), row.getString("kind"), row.getLong("subject"), row.getString("detail")),
                id,
                process);
    }

    /** The number of the last; some before it may not be visible yet. */
    public long last() {
        return database.queryForObject("select coalesce(max(id), 0) from news", Long.class);
    }

    public void deleteUpTo(long id) {
        database.update("delete from news where id <= ?", id);
    }
}
