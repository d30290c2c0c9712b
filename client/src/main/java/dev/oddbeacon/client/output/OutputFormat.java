package dev.oddbeacon.client.output;

/** How results are printed. */
public enum OutputFormat {
    TEXT,
    JSONL
}
