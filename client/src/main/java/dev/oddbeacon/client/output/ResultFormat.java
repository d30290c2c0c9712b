package dev.oddbeacon.client.output;

/** The format in which the results of a search are printed. */
public enum ResultFormat {
    TEXT,
    JSONL,
    CSV,
    /** Of searches alone: all results as one log. */
    SARIF
}
