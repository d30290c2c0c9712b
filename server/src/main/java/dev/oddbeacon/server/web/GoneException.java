package dev.oddbeacon.server.web;

/** What was asked for was there, but is not kept any longer. */
public final class GoneException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public GoneException(String message) {
        super(message);
    }
}
