package dev.oddbeacon.server.records;

import org.flywaydb.core.Flyway;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.stereotype.Component;

/**
 * Brings the tables up to date. MariaDB ends no migration as a whole when it is killed: each statement of a migration can
 * therefore be repeated, and the next start does so. What a later version has added stays as it is.
 */
@Component
public class Migrations implements FlywayMigrationStrategy {
    @Override
    public void migrate(Flyway flyway) {
        if (!isAsExpected(flyway)) {
            flyway.repair(); // one failed half-way, or its text was changed since
        }
        flyway.migrate();
    }

    private static boolean isAsExpected(Flyway flyway) {
        return Flyway.configure()
                .configuration(flyway.getConfiguration())
                .ignoreMigrationPatterns("*:pending", "*:future")
                .load()
                .validateWithResult()
                .validationSuccessful;
    }
}
