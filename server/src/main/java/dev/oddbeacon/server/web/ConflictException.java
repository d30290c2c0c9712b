package dev.oddbeacon.server.web;

/** Something was changed by somebody else, or is there already. Becomes status 409. */
public final class ConflictException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public ConflictException(String message) {
        super(message);
    }
}
