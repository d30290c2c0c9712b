package dev.oddbeacon.core.query;

/** A search that cannot be run as it stands. The message says what to do. */
public final class InvalidQueryException extends RuntimeException {
    private static final long serialVersionUID = 1;
    /** Where no place in the text can be named. */
    public static final int NOWHERE = -1;

    private final int position;

    /** @param position index into the text, in UTF-16 units from 0, or {@link #NOWHERE} */
    public InvalidQueryException(String message, int position) {
        super(message);
        this.position = position;
    }

    public int position() {
        return position;
    }
}
