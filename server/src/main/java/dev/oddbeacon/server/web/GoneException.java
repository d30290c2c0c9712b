package dev.oddbeacon.server.web;

/** Something that was asked for existed, but is not kept any longer. */
public final class GoneException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public GoneException(String message) {
        super(message);
    }
}
