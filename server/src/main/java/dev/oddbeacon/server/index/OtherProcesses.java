package dev.oddbeacon.server.index;

import dev.oddbeacon.core.segment.DamagedFileException;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.objects.StoreUnreachableException;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.NewsRecords;
import java.io.IOException;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Makes known here what other processes have changed in the records. */
@Component
class OtherProcesses implements SmartLifecycle, Processes.Watcher {
    private static final Logger LOG = LoggerFactory.getLogger(OtherProcesses.class);
    private static final Duration ROUND = Duration.ofMillis(150);
    private static final Duration STORE_RESTS = Duration.ofSeconds(2);
    private static final long BETWEEN_TIDYING = Duration.ofMinutes(2).toNanos();

    private final Processes processes;
    private final News.Reader reader;
    private final NewsRecords records;
    private final Claims claims;
    private final RepositoryChanges changes;
    private final Publisher publisher;
    private final KeptViews kept;
    private final JobReports reports;
    private final IndexJobs jobs;
    private final IndexRun run;
    private final HistoryJobs history;
    private final LocalMirrors mirrors;
    private final List<News.Hearer> hearers;
    private final Set<Long> changed = new HashSet<>(); // repositories; of the thread of rounds, as the next ones
    private final Set<Long> unpublished = new HashSet<>();
    private boolean isUnpublished;
    private volatile boolean isAllUnknown;
    private long tidiedAt = System.nanoTime();
    private long lastThen; // news
    private final Rounds rounds = new Rounds("news", ROUND, this::round);

    OtherProcesses(
            Processes processes,
            News news,
            NewsRecords records,
            Claims claims,
            RepositoryChanges changes,
            Publisher publisher,
            KeptViews kept,
            JobReports reports,
            IndexJobs jobs,
            IndexRun run,
            HistoryJobs history,
            LocalMirrors mirrors,
            List<News.Hearer> hearers) {
        this.hearers = hearers;
        this.processes = processes;
        this.reader = news.reader();
        this.records = records;
        this.claims = claims;
        this.changes = changes;
        this.publisher = publisher;
        this.kept = kept;
        this.reports = reports;
        this.jobs = jobs;
        this.run = run;
        this.history = history;
        this.mirrors = mirrors;
    }

    @Override
    public void start() {
        processes.watch(this);
        rounds.start();
    }

    private void round() {
        try {
            claims.releaseLate();
            if (isAllUnknown) {
                changes.reload();
                publisher.publish();
                isAllUnknown = false;
            }
            if (processes.hasOthers()) {
                reader.read().forEach(this::read);
            }
            makeKnown();
            if (publisher.isBehind()) {
                publisher.publishSegments();
            }
            tidy();
        } catch (StoreUnreachableException e) {
            LOG.warn("What others have written is seen later: {}", e.getMessage());
            pause();
        } catch (DamagedFileException e) { // and it is so a moment later, too
            LOG.warn("What others have written cannot be read: {}", e.getMessage());
            pause();
        } catch (DataAccessException | TransactionException | IOException e) {
            LOG.info("What other processes have changed is seen later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Reading what other processes have changed failed", e);
        }
    }

    private static void pause() {
        try {
            Thread.sleep(STORE_RESTS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt(); // the service stops
        }
    }

    private void read(News.Item item) {
        switch (item.kind()) {
            case REPOSITORY -> {
                changed.add(item.subject());
                unpublished.add(item.subject());
                isUnpublished = true;
                mirrors.want(item.subject());
            }
            case SEGMENTS -> isUnpublished = true;
            case PURGED -> {
                kept.letGo();
                isUnpublished = true;
                mirrors.wantAnew(item.subject());
            }
            case PEOPLE, SETS, SESSION ->
                hearers.stream().filter(hearer -> hearer.kind() == item.kind()).forEach(hearer -> hearer.heard(item));
            case PROGRESS, ORIGIN -> {
                if (processes.has(Duty.SERVING)) {
                    reports.read(item);
                }
            }
        }
    }

    /** What fails stays to be made known in the next round. */
    private void makeKnown() throws IOException {
        for (long repository : Set.copyOf(changed)) {
            if (changes.publish(repository).isEmpty() && changes.forget(repository)) {
                history.removed(repository);
                run.removedElsewhere(repository);
            }
            changed.remove(repository);
            jobs.wake();
        }
        if (isUnpublished) {
            publisher.publish(unpublished);
            unpublished.clear();
            isUnpublished = false;
        }
    }

    /** What was told some minutes ago, everybody has read. */
    private void tidy() {
        if (System.nanoTime() - tidiedAt > BETWEEN_TIDYING) {
            records.deleteUpTo(lastThen);
            lastThen = records.last();
            tidiedAt = System.nanoTime();
        }
    }

    @Override
    public void returned() {
        isAllUnknown = true;
    }

    @Override
    public void stop() {
        rounds.stop();
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
