package dev.oddbeacon.core.search;

/** Work was given up, because its time was over or nobody wanted it any more. */
public final class BudgetOverException extends RuntimeException {
    BudgetOverException() {
        super("the time for this is over", null, false, false);
    }
}
