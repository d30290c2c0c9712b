package dev.oddbeacon.client.service;

/** Exit statuses of all commands. */
public final class ExitStatus {
    public static final int FOUND = 0;
    public static final int NOTHING_FOUND = 1;
    /** Wrong usage, or a query that cannot be run. */
    public static final int WRONG = 2;
    /** The service was not reached, or failed. */
    public static final int FAILED = 3;
    /** The service answered, and what it says is for somebody to act on. */
    public static final int TO_ACT_ON = 4;

    private ExitStatus() {}

    public static int of(boolean found) {
        return found ? FOUND : NOTHING_FOUND;
    }
}
