package dev.oddbeacon.core.segment;

/** What the index holds of a blob: its text, or only that it has none. The order is that of the file format. */
public enum BlobState {
    TEXT, BINARY
}
