package dev.oddbeacon.core.search;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;

/** The work of a search, counted while it runs: for those who want to know why it took so long. Thread-safe. */
public final class Effort {
    public final AtomicInteger lists = new AtomicInteger();
    public final AtomicLong postingsBytes = new AtomicLong();
    public final AtomicInteger filesVerified = new AtomicInteger();
    public final AtomicLong bytesVerified = new AtomicLong();
}
