package dev.oddbeacon.client.output;

/** How the results of a search are printed. */
public enum ResultFormat {
    TEXT,
    JSONL,
    CSV
}
