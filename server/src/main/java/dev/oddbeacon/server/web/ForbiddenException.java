package dev.oddbeacon.server.web;

/** Somebody may do such things, but not this one. Becomes status 403. */
public final class ForbiddenException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public ForbiddenException(String message) {
        super(message);
    }
}
