package dev.oddbeacon.server.web;

/** What was sent, or what was asked for, has more bytes than are taken or given. */
public final class TooLargeException extends RuntimeException {
    /** @param message what is too large, and what to do */
    public TooLargeException(String message) {
        super(message);
    }
}
