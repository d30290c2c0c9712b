package dev.oddbeacon.server.web;

/**
 * A request that cannot be taken as it is: the caller's mistake, and the message says what to do. Becomes status 400.
 */
public final class BadRequestException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public BadRequestException(String message) {
        super(message);
    }
}
