package dev.oddbeacon.core.query;

/** Whether case counts. */
public enum CaseMode {
    /** It counts when the text has a capital among its literal letters. */
    AUTO,
    MATCH,
    IGNORE
}
