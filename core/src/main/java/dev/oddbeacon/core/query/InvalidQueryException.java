package dev.oddbeacon.core.query;

import java.util.List;
import java.util.Optional;

/** A search that cannot be run as it stands. The message says what to do. */
public final class InvalidQueryException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final transient List<Mistake> mistakes;

    /** @param mistakes at least one */
    public InvalidQueryException(List<Mistake> mistakes) {
        super(mistakes.getFirst().message());
        this.mistakes = List.copyOf(mistakes);
    }

    /** A mistake that has no place in the text. */
    public InvalidQueryException(String message) {
        this(message, Mistake.NOWHERE);
    }

    /** @param position index into the text, in UTF-16 units from 0, or {@link Mistake#NOWHERE} */
    public InvalidQueryException(String message, int position) {
        this(List.of(new Mistake(message, position, position < 0 ? 0 : 1, Optional.empty(), false)));
    }

    public List<Mistake> mistakes() {
        return mistakes;
    }
}
