package dev.oddbeacon.server.processes;

import org.springframework.dao.DataAccessResourceFailureException;

/**
 * This process stood still for so long that the others took over its work. What it was about to record is not recorded;
 * within seconds it is one of them again.
 */
public class StruckOffException extends DataAccessResourceFailureException {
    private static final long serialVersionUID = 1;

    StruckOffException() {
        super("this process stood still, and others took over its work");
    }
}
