package dev.oddbeacon.server.index;

import dev.oddbeacon.core.ingest.Ingest;
import java.io.IOException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.locks.ReadWriteLock;
import java.util.concurrent.locks.ReentrantReadWriteLock;
import java.util.function.BooleanSupplier;
import org.springframework.stereotype.Component;

/**
 * When segments are dropped, merged and written anew.
 *
 * <p>Concurrency: whoever ingests counts on blobs that segments hold, and holds {@code counted} for reading; whoever leaves
 * blobs behind holds it for writing. One merges at a time.
 */
@Component
class SegmentOrder {
    private final IndexUpkeep upkeep;
    private final KeptViews kept;
    private final ReadWriteLock counted = new ReentrantReadWriteLock();
    private final Semaphore merging = new Semaphore(1);

    SegmentOrder(IndexUpkeep upkeep, KeptViews kept) {
        this.upkeep = upkeep;
        this.kept = kept;
    }

    /** As long as it is open, nothing is left behind of what segments hold. */
    interface Counting extends AutoCloseable {
        @Override
        void close();
    }

    /** Whoever is about to take a view, to ingest what it does not have, opens this first. */
    Counting countOnBlobs() {
        counted.readLock().lock();
        return counted.readLock()::unlock;
    }

    /** Drops segments that nobody uses, unless somebody is ingesting: then that job does it. */
    void dropUnused() throws IOException {
        if (counted.writeLock().tryLock()) {
            try {
                upkeep.dropUnused();
            } finally {
                counted.writeLock().unlock();
            }
        }
    }

    /**
     * Merges segments while there are some to merge, unless another job does. While somebody is ingesting, nothing that
     * the segments hold is left behind.
     */
    void merge(BooleanSupplier stopped) throws IOException {
        if (!merging.tryAcquire()) {
            return;
        }
        try {
            boolean more = true;
            while (more && !stopped.getAsBoolean()) {
                boolean isAlone = counted.writeLock().tryLock();
                try {
                    more = upkeep.mergeSome(Ingest.SEGMENT_BYTES, !isAlone);
                } finally {
                    if (isAlone) {
                        counted.writeLock().unlock();
                    }
                }
            }
        } finally {
            merging.release();
        }
    }

    /** Writes one segment anew that an earlier version of the analysis wrote. */
    void renewOne() throws IOException {
        merging.acquireUninterruptibly();
        boolean isAlone = counted.writeLock().tryLock();
        try {
            upkeep.renewOne(!isAlone);
        } finally {
            if (isAlone) {
                counted.writeLock().unlock();
            }
            merging.release();
        }
    }

    /** Writes segments anew that hold what no branch refers to, once nobody is ingesting; views of before are let go. */
    void leaveNothingBehind() throws IOException {
        kept.letGo();
        merging.acquireUninterruptibly();
        counted.writeLock().lock();
        try {
            upkeep.dropUnused();
            upkeep.leaveBehindUnwanted();
        } finally {
            counted.writeLock().unlock();
            merging.release();
        }
    }
}
