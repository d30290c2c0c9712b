package dev.oddbeacon.server.web;

/** Something that was asked for does not exist; the message says what to do. */
public final class NotFoundException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public NotFoundException(String message) {
        super(message);
    }
}
