package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.text.Coded;
import java.util.Arrays;
import java.util.Optional;

/** How surely a name that is used means a certain declaration. The surest first. */
public enum Certainty implements Coded {
    /** What is written leads to that declaration and to no other. */
    SURE(0, "sure", "sure"),
    /** What is written speaks for it, and does not tell all. */
    LIKELY(1, "likely", "likely"),
    /** Nothing but the name speaks for it. */
    BY_NAME(2, "by-name", "by name only");

    private final int code;
    private final String label;
    private final String words;

    Certainty(int code, String label, String words) {
        this.code = code;
        this.label = label;
        this.words = words;
    }

    @Override
    public int code() {
        return code;
    }

    /** The certainty of a label, in any case. */
    public static Optional<Certainty> of(String label) {
        return Arrays.stream(values())
                .filter(one -> one.label.equalsIgnoreCase(label))
                .findFirst();
    }

    /** As programs write it. */
    public String label() {
        return label;
    }

    /** As people read it. */
    public String words() {
        return words;
    }
}
