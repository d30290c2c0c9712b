package dev.oddbeacon.server.backup;

/** A backup that cannot be restored, or not there; the message says why and what to do. */
final class CannotRestoreException extends Exception {
    private static final long serialVersionUID = 1;

    CannotRestoreException(String message) {
        super(message);
    }
}
