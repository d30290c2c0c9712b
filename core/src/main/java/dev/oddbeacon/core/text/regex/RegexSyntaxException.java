package dev.oddbeacon.core.text.regex;

/** A regular expression that is not valid. The message says what to do. */
public final class RegexSyntaxException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int position;
    private final boolean unfinished;

    /**
     * @param position of the mistake, in UTF-16 units from 0
     * @param unfinished whether more text at the end could make it valid
     */
    RegexSyntaxException(String message, int position, boolean unfinished) {
        super(message);
        this.position = position;
        this.unfinished = unfinished;
    }

    public int position() {
        return position;
    }

    public boolean unfinished() {
        return unfinished;
    }
}
