package dev.oddbeacon.core.ingest;

import java.util.concurrent.atomic.AtomicLong;

/** Progress of an ingest; written by its threads, read by anybody. */
public final class IngestProgress {
    private final AtomicLong totalBytes = new AtomicLong();
    private final AtomicLong doneBytes = new AtomicLong();

    void expect(long bytes) {
        totalBytes.set(bytes);
    }

    void add(long bytes) {
        doneBytes.addAndGet(bytes);
    }

    /** Bytes of new blobs, known once the tree is read; 0 before. */
    public long totalBytes() {
        return totalBytes.get();
    }

    public long doneBytes() {
        return doneBytes.get();
    }
}
