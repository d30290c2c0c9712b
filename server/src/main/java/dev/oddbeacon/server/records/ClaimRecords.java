package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** What only one process may do at a time. What one that has ended claimed is free. */
@Component
public class ClaimRecords {
    private final JdbcTemplate database;

    ClaimRecords(JdbcTemplate database) {
        this.database = database;
    }

    /** @return whether the process has it now, or had it already */
    public boolean take(String kind, long subject, long machine, long process) {
        // each statement by itself: together, two processes that meet would wait for one another
        database.update(
                "delete from claim where kind = ? and subject = ? and machine = ? and process_id not in (select id from process)",
                kind,
                subject,
                machine);
        database.update(
                "insert ignore into claim (kind, subject, machine, process_id) values (?, ?, ?, ?)",
                kind,
                subject,
                machine,
                process);
        return database.queryForList(
                        "select process_id from claim where kind = ? and subject = ? and machine = ?",
                        Long.class,
                        kind,
                        subject,
                        machine)
                .contains(process);
    }

    public void release(String kind, long subject, long machine, long process) {
        database.update(
                "delete from claim where kind = ? and subject = ? and machine = ? and process_id = ?",
                kind,
                subject,
                machine,
                process);
    }

    /** Processes that have not ended and have claimed something. */
    public List<Long> holders(String kind) {
        return database.queryForList(
                "select process_id from claim where kind = ? and process_id in (select id from process)",
                Long.class,
                kind);
    }

    /** What is claimed by processes that have not ended. */
    public List<Long> held(String kind, long machine) {
        return database.queryForList(
                "select subject from claim where kind = ? and machine = ? and process_id in (select id from process)",
                Long.class,
                kind,
                machine);
    }
}
