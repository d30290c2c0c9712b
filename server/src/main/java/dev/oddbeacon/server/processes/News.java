package dev.oddbeacon.server.processes;

import dev.oddbeacon.server.records.NewsRecords;
import dev.oddbeacon.server.records.NewsRecords.NewsRecord;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.springframework.stereotype.Component;

/** What processes tell one another, through the records. */
@Component
public class News {
    /** No transaction takes longer, so whatever has a lower number than something this old is visible, or never will be. */
    private static final Duration LONGEST_TRANSACTION = Duration.ofSeconds(60);

    private static final long READ_AGAIN = 1_000; // of what was told before a reader began

    /** What news can be of. */
    public enum Kind {
        /** The record of a repository, its branches, its jobs or its past, or that it is gone. */
        REPOSITORY,
        /** Segments alone. */
        SEGMENTS,
        /** A repository was purged: no view from before may be kept. */
        PURGED,
        /** What is being done with a repository. */
        PROGRESS,
        /** What a job found out about the origin of a repository. */
        ORIGIN,
        /** Accounts, teams or tokens. */
        PEOPLE,
        /** Exclusion sets. */
        SETS,
        /** A session that has ended. */
        SESSION
    }

    /** Keeps in memory what other processes may change in the records. */
    public interface Hearer {
        /** What it wants to hear of. */
        Kind kind();

        /** Others have changed something. All of it is called on one thread. */
        void heard(Item item);
    }

    /** @param subject the number of a repository's record, or 0 */
    public record Item(Kind kind, long subject, String detail) {}

    private final Processes processes;
    private final NewsRecords records;

    News(Processes processes, NewsRecords records) {
        this.processes = processes;
        this.records = records;
    }

    /**
     * Tells the others of what the transaction that is open changes.
     *
     * @throws StruckOffException if this process is none of them any more: the transaction must not go through
     */
    public void tell(Kind kind, long subject, String detail) {
        if (!records.add(processes.id(), kind.name().toLowerCase(Locale.ROOT), subject, detail)) {
            throw new StruckOffException();
        }
    }

    public void tell(Kind kind, long subject) {
        tell(kind, subject, "");
    }

    /** Somebody who reads what the others tell, each item once. */
    public Reader reader() {
        return new Reader();
    }

    /**
     * Reads what the others tell. Numbers are given before transactions end, so what has a lower number may become
     * visible later: what is recent is read again, and passed over if it was there before.
     *
     * <p>Concurrency: one thread at a time.
     */
    public final class Reader {
        private record Seen(long id, long nanos) {}

        private final Deque<Seen> recent = new ArrayDeque<>();
        private final Set<Long> ids = new HashSet<>();
        private long low = Math.max(0, records.last() - READ_AGAIN);

        /** What is new, in the order of its numbers; within a transaction, as of its beginning. */
        public List<Item> read() {
            List<Item> fresh = new ArrayList<>();
            long now = System.nanoTime();
            for (NewsRecord record : records.after(low, processes.id())) {
                if (ids.add(record.id())) {
                    recent.add(new Seen(record.id(), now));
                    fresh.add(new Item(
                            Kind.valueOf(record.kind().toUpperCase(Locale.ROOT)), record.subject(), record.detail()));
                }
            }
            while (!recent.isEmpty() && now - recent.peek().nanos() > LONGEST_TRANSACTION.toNanos()) {
                Seen old = recent.remove();
                ids.remove(old.id());
                low = Math.max(low, old.id());
            }
            return fresh;
        }
    }
}
