package dev.oddbeacon.server.health;

import java.sql.Connection;
import java.sql.SQLException;
import javax.sql.DataSource;
import org.springframework.stereotype.Component;

/** Whether MariaDB answers. */
@Component
class RecordsReached {
    private static final int SECONDS = 2;

    private final DataSource database;

    RecordsReached(DataSource database) {
        this.database = database;
    }

    boolean areReached() {
        try (Connection connection = database.getConnection()) {
            return connection.isValid(SECONDS);
        } catch (SQLException e) {
            return false;
        }
    }
}
