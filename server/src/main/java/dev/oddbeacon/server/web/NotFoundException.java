package dev.oddbeacon.server.web;

/** What was asked for is not there; the message says what to do. */
public final class NotFoundException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public NotFoundException(String message) {
        super(message);
    }
}
