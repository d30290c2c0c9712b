package dev.oddbeacon.server.records;

import java.time.Duration;
import java.util.Collection;
import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Objects that no record names any more, since when by the clock of the database: those of machines may differ. */
@Component
public class UnneededObjects {
    private final JdbcTemplate database;

    UnneededObjects(JdbcTemplate database) {
        this.database = database;
    }

    public List<String> all() {
        return database.queryForList("select name from unneeded_object", String.class);
    }

    /** Those that have been so for some time. */
    public List<String> allFor(Duration time) {
        return database.queryForList(
                "select name from unneeded_object where since <= timestampadd(second, ?, utc_timestamp(6))",
                String.class,
                -time.toSeconds());
    }

    public void add(Collection<String> names) {
        database.batchUpdate(
                "insert ignore into unneeded_object (name, since) values (?, utc_timestamp(6))",
                names.stream().map(name -> new Object[] {name}).toList());
    }

    public void remove(Collection<String> names) {
        database.batchUpdate(
                "delete from unneeded_object where name = ?",
                names.stream().map(name -> new Object[] {name}).toList());
    }
}
