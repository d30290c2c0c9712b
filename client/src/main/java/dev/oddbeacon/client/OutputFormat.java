package dev.oddbeacon.client;

/** How results are printed. */
enum OutputFormat {
    TEXT, JSONL
}
