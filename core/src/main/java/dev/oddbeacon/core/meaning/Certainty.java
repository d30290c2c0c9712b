package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.text.Coded;

/** How surely a name that is used means a certain declaration. The surest first. */
public enum Certainty implements Coded {
    /** What is written leads to that declaration and to no other. */
    SURE(0, "sure"),
    /** What is written speaks for it, and does not tell all. */
    LIKELY(1, "likely"),
    /** Nothing but the name speaks for it. */
    BY_NAME(2, "by name only");

    private final int code;
    private final String words;

    Certainty(int code, String words) {
        this.code = code;
        this.words = words;
    }

    @Override
    public int code() {
        return code;
    }

    public String words() {
        return words;
    }
}
