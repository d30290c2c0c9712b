package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** The processes that work on the index. */
@Component
public class ProcessRecords {
    /**
     * A process.
     *
     * @param machine of a cluster; 0 without one
     * @param duties with commas between
     * @param beats how often it has said that it lives
     * @param heapUsed bytes
     * @param heapLimit bytes
     */
    public record ProcessRecord(
            long id,
            long machine,
            String duties,
            String host,
            long pid,
            Instant begun,
            long beats,
            long heapUsed,
            long heapLimit) {}

    private final JdbcTemplate database;

    ProcessRecords(JdbcTemplate database) {
        this.database = database;
    }

    /** @throws org.springframework.dao.DuplicateKeyException if there is one of this number */
    public void add(long id, long machine, String duties, String host, long pid, Instant begun) {
        database.update(
                "insert into process (id, machine, duties, host, pid, begun) values (?, ?, ?, ?, ?, ?)",
                id,
                machine,
                duties,
                host,
                pid,
                Times.utc(begun));
    }

    /** Says that a process lives. @return whether the others think so, too */
    public boolean beat(long id, long heapUsed, long heapLimit) {
        return database.update(
                        "update process set beats = beats + 1, heap_used = ?, heap_limit = ? where id = ?",
                        heapUsed,
                        heapLimit,
                        id)
                == 1;
    }

    public List<ProcessRecord> all() {
        return database.query(
                "select id, machine, duties, host, pid, begun, beats, heap_used, heap_limit from process order by begun, id",
                (row, _) -> new ProcessRecord(
                        row.getLong("id"),
                        row.getLong("machine"),
                        row.getString("duties"),
                        row.getString("host"),
                        row.getLong("pid"),
                        Times.instant(row, "begun").orElseThrow(),
                        row.getLong("beats"),
                        row.getLong("heap_used"),
                        row.getLong("heap_limit")));
    }

    /** Strikes a process off, unless it has said meanwhile that it lives. @param beats as they were counted last */
    public void remove(long id, long beats) {
        database.update("delete from process where id = ? and beats = ?", id, beats);
    }

    public void remove(long id) {
        database.update("delete from process where id = ?", id);
    }
}
