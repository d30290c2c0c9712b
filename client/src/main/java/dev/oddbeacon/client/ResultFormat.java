package dev.oddbeacon.client;

/** How the results of a search are printed. */
enum ResultFormat {
    TEXT, JSONL, CSV
}
