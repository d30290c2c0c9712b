package dev.oddbeacon.core.search;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;

/** What a search did, counted while it runs: for those who want to know why it took so long. Thread-safe. */
final class Effort {
    final AtomicInteger lists = new AtomicInteger();
    final AtomicLong postingsBytes = new AtomicLong();
    final AtomicInteger filesVerified = new AtomicInteger();
    final AtomicLong bytesVerified = new AtomicLong();
}
