package dev.oddbeacon.agents;

/** The service refused a question, or could not be asked; the message says what to do. */
public final class RefusedException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public RefusedException(String message) {
        super(message);
    }
}
