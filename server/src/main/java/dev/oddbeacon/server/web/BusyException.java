package dev.oddbeacon.server.web;

/** The service has too much to do, or a request took longer than it may: it can be tried again. */
public final class BusyException extends RuntimeException {
    /** @param message what happened and what to do */
    public BusyException(String message) {
        super(message);
    }
}
