package dev.oddbeacon.server.accounts;

/** Somebody whom an issuer knows, and who has no account for it. */
public final class NotAdmittedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** Why. */
    public enum Reason {
        /** The issuer tells no name that an account can have. */
        NO_NAME,
        /** There is an account of this name that signs in otherwise. */
        NAME_TAKEN,
        /** The account was ended. */
        ENDED
    }

    private final Reason reason;

    NotAdmittedException(Reason reason, String message) {
        super(message);
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}
