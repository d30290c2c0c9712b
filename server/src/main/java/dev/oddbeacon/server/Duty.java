package dev.oddbeacon.server;

import java.util.Locale;

/** What a process does for the index. */
public enum Duty {
    /** It answers requests, follows repositories and keeps the records of people. One process does. */
    SERVING,
    /** It fetches and indexes repositories, reads their past and puts the index in order. Any number do. */
    INDEXING;

    /** As it is written. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
