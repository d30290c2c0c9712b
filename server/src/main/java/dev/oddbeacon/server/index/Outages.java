package dev.oddbeacon.server.index;

import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.dao.NonTransientDataAccessException;
import org.springframework.dao.RecoverableDataAccessException;
import org.springframework.dao.TransientDataAccessException;
import org.springframework.orm.jpa.JpaSystemException;
import org.springframework.transaction.TransactionException;

/**
 * Tells whether the records cannot be reached, which passes, from data that they do not take, which does not: what is
 * tried again for ever must not be tried in vain.
 */
final class Outages {
    private Outages() {}

    static boolean isOutage(Exception e) {
        return switch (e) {
            case DataAccessResourceFailureException _,
                    TransientDataAccessException _,
                    RecoverableDataAccessException _ -> true;
            case NonTransientDataAccessException _ -> false;
            case TransactionException _ -> true;
            default -> e instanceof JpaSystemException;
        };
    }
}
