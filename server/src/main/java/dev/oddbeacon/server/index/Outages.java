package dev.oddbeacon.server.index;

import dev.oddbeacon.server.objects.StoreUnreachableException;
import java.sql.SQLException;
import java.util.Set;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.dao.NonTransientDataAccessException;
import org.springframework.dao.RecoverableDataAccessException;
import org.springframework.dao.TransientDataAccessException;
import org.springframework.orm.jpa.JpaSystemException;
import org.springframework.transaction.TransactionException;

/**
 * Tells whether records or objects cannot be reached, which passes, from data that they do not take, which does not: what is
 * tried again for ever must not be tried in vain.
 */
final class Outages {
    /** Cardinality, data, constraints, syntax or access, checks of views, and what triggers signal. */
    private static final Set<String> ABOUT_DATA = Set.of("21", "22", "23", "42", "44", "45");

    private Outages() {}

    static boolean isOutage(Exception e) {
        if (isAboutData(e)) { // which the driver may take for a lost connection
            return false;
        }
        return switch (e) {
            case DataAccessResourceFailureException _,
                    TransientDataAccessException _,
                    RecoverableDataAccessException _ -> true;
            case NonTransientDataAccessException _ -> false;
            case TransactionException _, StoreUnreachableException _ -> true;
            default -> e instanceof JpaSystemException;
        };
    }

    /** Whether the database says that it is what was written: by the class of its state, as SQL defines them. */
    private static boolean isAboutData(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof SQLException sql && sql.getSQLState() != null) {
                return ABOUT_DATA.stream().anyMatch(sql.getSQLState()::startsWith);
            }
        }
        return false;
    }
}
