package dev.oddbeacon.server.records;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;

/** Times in the records are in UTC, whatever the zone of the machine. */
final class Times {
    private Times() {}

    static LocalDateTime utc(Instant instant) {
        return LocalDateTime.ofInstant(instant, ZoneOffset.UTC);
    }

    /** @return empty for null */
    static Optional<Instant> instant(ResultSet row, String column) throws SQLException {
        return Optional.ofNullable(row.getObject(column, LocalDateTime.class))
                .map(time -> time.toInstant(ZoneOffset.UTC));
    }
}
