package dev.oddbeacon.client.output;

/** The format in which results are printed. */
public enum OutputFormat {
    TEXT,
    JSONL
}
