package dev.oddbeacon.server;

/** The service would be useless, or unsafe. The message says what to do, in one line. */
public final class CannotStartException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public CannotStartException(String message) {
        super(message);
    }
}
