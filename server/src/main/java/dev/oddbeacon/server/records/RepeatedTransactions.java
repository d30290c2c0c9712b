package dev.oddbeacon.server.records;

import java.sql.SQLException;
import java.util.concurrent.ThreadLocalRandom;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionCallback;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Transactions that begin again when another was in their way. One MariaDB ends one of two that wait for each other; the
 * nodes of a Galera cluster let both go on, and refuse the later one at its end. So what is done within may be done
 * several times: it changes nothing but records.
 */
@Component
public class RepeatedTransactions extends TransactionTemplate {
    private static final int MOST = 8; // times
    private static final int LONGEST_PAUSE_MILLIS = 20; // before the second time; then longer
    private static final int DEADLOCK = 1213; // MariaDB's ER_LOCK_DEADLOCK, which Galera's refusals are as well

    public RepeatedTransactions(PlatformTransactionManager transactions) {
        super(transactions);
    }

    @Override
    public <T> T execute(TransactionCallback<T> action) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            return super.execute(action); // whoever began it begins again
        }
        for (int time = 1; ; time++) {
            try {
                return super.execute(action);
            } catch (DataAccessException | TransactionException e) {
                if (time == MOST || !isInTheWay(e)) {
                    throw e;
                }
                pause(time);
            }
        }
    }

    private static boolean isInTheWay(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof SQLException sql && sql.getErrorCode() == DEADLOCK) {
                return true;
            }
        }
        return false;
    }

    private static void pause(int time) {
        try {
            Thread.sleep(ThreadLocalRandom.current().nextInt(1, time * LONGEST_PAUSE_MILLIS));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
