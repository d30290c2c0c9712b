package dev.oddbeacon.server.index;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.records.RepositoryRecords;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The queue of repositories to index. It is in the records: a job that a crash interrupted is begun again at the
 * next start. Repositories are fetched several at a time, so that one that does not answer holds up nobody.
 */
@Component
public class IndexJobs implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(IndexJobs.class);
    private static final int AT_A_TIME = 4;

    private final RepositoryRecords repositories;
    private final JobRecords jobs;
    private final TransactionTemplate transaction;
    private final RepositoryChanges changes;
    private final IndexUpkeep upkeep;
    private final Publisher publisher;
    private final IndexRun run;
    private final HistoryJobs history;
    private final Semaphore wake = new Semaphore(0);
    private final Semaphore free = new Semaphore(AT_A_TIME);
    private volatile boolean running;
    private Thread dispatcher = Thread.ofVirtual().unstarted(() -> {});

    IndexJobs(
            RepositoryRecords repositories,
            JobRecords jobs,
            TransactionTemplate transaction,
            RepositoryChanges changes,
            IndexUpkeep upkeep,
            Publisher publisher,
            IndexRun run,
            HistoryJobs history) {
        this.repositories = repositories;
        this.jobs = jobs;
        this.transaction = transaction;
        this.changes = changes;
        this.upkeep = upkeep;
        this.publisher = publisher;
        this.run = run;
        this.history = history;
    }

    /** Registers a repository and queues it; its name must be free. */
    public Repository register(NewRepository wanted, String title) {
        RepositoryRecord record = new RepositoryRecord(
                wanted.name(),
                title,
                wanted.location(),
                Optional.ofNullable(wanted.branches()).orElse(List.of()),
                Optional.ofNullable(wanted.labels()).orElse(List.of()));
        Repository added = changes.add(record, saved -> jobs.save(new JobRecord(saved.id())));
        wake.release();
        return added;
    }

    /** Queues a repository, unless it is queued already. @return empty if it was removed meanwhile */
    public Optional<Repository> refresh(long repositoryId) {
        Optional<Repository> queued = changes.change(repositoryId, this::enqueue);
        wake.release();
        return queued;
    }

    private void enqueue(RepositoryRecord record) {
        if (jobs.findByRepositoryId(record.id()).stream().allMatch(JobRecord::running)) {
            jobs.save(new JobRecord(record.id()));
            record.state(State.WAITING, Optional.empty());
        }
    }

    /** Takes a repository and all that is indexed of it out; what others do not share is deleted. */
    public void remove(Repository repository) throws IOException {
        changes.remove(repository, () -> jobs.deleteByRepositoryId(repository.id()));
        publisher.publish();
        run.removed(repository.id());
    }

    @Override
    public void start() {
        running = true;
        transaction.executeWithoutResult(_ -> jobs.findAll().forEach(job -> job.running(false)));
        enqueueLost(true);
        dispatcher = Thread.ofVirtual().name("index-jobs").start(this::dispatch);
        Thread.ofPlatform().daemon().name("verify-index").start(this::verifyAfterStart);
    }

    /** Queues the repositories of which the index has not everything, and those that a stop interrupted. */
    private void enqueueLost(boolean alsoInterrupted) {
        Set<String> incomplete =
                upkeep.incomplete().stream().map(Branch::repository).collect(Collectors.toSet());
        changes.changeSome(() -> {
            List<Long> changed = new ArrayList<>();
            for (RepositoryRecord record : repositories.findAll()) {
                boolean lost = incomplete.contains(record.name())
                        || record.state() == State.READY
                                && record.branches().isEmpty()
                                && record.problem().isEmpty();
                boolean interrupted =
                        alsoInterrupted && (record.state() == State.INDEXING || record.state() == State.WAITING);
                if (lost || interrupted) {
                    enqueue(record);
                    record.state(State.WAITING, Optional.empty());
                    changed.add(record.id());
                }
            }
            return changed;
        });
        wake.release();
    }

    /** The text of segments is not read when they are opened, or a start would take as long as reading the index. */
    private void verifyAfterStart() {
        try {
            verify();
        } catch (IOException | RuntimeException e) {
            LOG.warn("The index could not be verified after the start: {}", e.getMessage());
        }
    }

    /** Compares all files of the index with their checksums, and queues the repositories of damaged ones. */
    public IndexUpkeep.Check verify() throws IOException {
        IndexUpkeep.Check check = upkeep.verify();
        if (!check.damaged().isEmpty()) {
            enqueueLost(false);
            history.requestMissing();
        }
        return check;
    }

    private void dispatch() {
        while (running) {
            try {
                free.acquire();
                Optional<JobRecord> job = next();
                if (job.isPresent()) {
                    Thread.ofVirtual().name("index-" + job.get().repositoryId()).start(() -> work(job.get()));
                } else {
                    free.release();
                    wake.tryAcquire(5, TimeUnit.SECONDS);
                    wake.drainPermits();
                }
            } catch (InterruptedException e) {
                return;
            } catch (DataAccessException | TransactionException e) {
                free.release();
                LOG.warn("The records cannot be reached; trying again: {}", e.getMessage());
                pause();
            }
        }
    }

    private Optional<JobRecord> next() {
        return transaction.execute(_ -> {
            List<JobRecord> open = jobs.findAllByOrderById();
            Set<Long> busy = new HashSet<>();
            open.stream().filter(JobRecord::running).forEach(job -> busy.add(job.repositoryId()));
            Optional<JobRecord> job = open.stream()
                    .filter(candidate -> !busy.contains(candidate.repositoryId()))
                    .findFirst();
            job.ifPresent(found -> found.running(true));
            return job;
        });
    }

    private void work(JobRecord job) {
        try {
            run.run(job);
        } catch (CancellationException e) {
            LOG.info("Indexing was interrupted; it will go on at the next start");
        } catch (DataAccessException | TransactionException e) {
            LOG.warn("The records cannot be reached; the job is tried again: {}", e.getMessage());
            pause();
            putBack(job);
        } catch (RuntimeException e) {
            LOG.error("Indexing failed", e);
        } finally {
            free.release();
            wake.release();
        }
    }

    private void putBack(JobRecord job) {
        while (running) {
            try {
                transaction.executeWithoutResult(_ -> jobs.findById(job.id()).ifPresent(found -> found.running(false)));
                return;
            } catch (DataAccessException | TransactionException e) {
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(1_000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void stop() {
        running = false;
        run.stop();
        dispatcher.interrupt();
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
