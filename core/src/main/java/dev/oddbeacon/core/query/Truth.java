package dev.oddbeacon.core.query;

/** The value of a condition or query for a whole branch, as far as it is known before any file is looked at. */
public enum Truth {
    YES,
    NO,
    /** It depends on the file. */
    OPEN;

    public static Truth of(boolean holds) {
        return holds ? YES : NO;
    }
}
