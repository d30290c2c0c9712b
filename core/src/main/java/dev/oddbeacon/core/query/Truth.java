package dev.oddbeacon.core.query;

/** What is known of a condition or a query for all files of a branch, before any of them is looked at. */
public enum Truth {
    YES,
    NO,
    /** It depends on the file. */
    OPEN;

    public static Truth of(boolean holds) {
        return holds ? YES : NO;
    }
}
