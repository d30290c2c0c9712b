package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** What the service was like, and the queue as it is. */
@Component
public class HealthRecords {
    /** @param taken at its end @param seconds how long it was @param figures JSON */
    public record HealthRecord(Instant taken, int seconds, String figures) {}

    /** Jobs that wait. @param oldest since when the first of them does */
    public record Queue(int waiting, Optional<Instant> oldest) {}

    private final JdbcTemplate database;

    HealthRecords(JdbcTemplate database) {
        this.database = database;
    }

    public Queue queue() {
        return database.queryForObject(
                "select count(*) as waiting, min(created) as oldest from job where not running",
                (row, _) -> new Queue(row.getInt("waiting"), Times.instant(row, "oldest")));
    }

    /** All of these, or, if it fails, none. */
    public void save(Collection<HealthRecord> readings) {
        database.batchUpdate(
                "insert ignore into health_reading (taken, seconds, figures) values (?, ?, ?)",
                readings.stream()
                        .map(reading -> new Object[] {Times.utc(reading.taken), reading.seconds, reading.figures})
                        .toList());
    }

    /** Those that ended after one moment and not after another, the oldest first. */
    public List<HealthRecord> between(Instant after, Instant upTo) {
        return database.query(
                "select taken, seconds, figures from health_reading where taken > ? and taken <= ? order by taken",
                (row, _) -> new HealthRecord(
                        Times.instant(row, "taken").orElseThrow(), row.getInt("seconds"), row.getString("figures")),
                Times.utc(after),
                Times.utc(upTo));
    }

    /** Deletes those that ended up to then. */
    public void deleteUpTo(Instant end) {
        database.update("delete from health_reading where taken <= ?", Times.utc(end));
    }

    /** Deletes those that ended after one moment and not after another. */
    public void deleteBetween(Instant after, Instant upTo) {
        database.update("delete from health_reading where taken > ? and taken <= ?", Times.utc(after), Times.utc(upTo));
    }
}
