package dev.oddbeacon.server.index;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.git.Location;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.processes.StruckOffException;
import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.records.RepositoryRecords;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The queue of repositories to index. It is in the records: a job of a process that has ended is begun again, by another
 * one or at the next start. Repositories are fetched several at a time, so that one that does not answer holds up nobody.
 */
@Component
public class IndexJobs implements SmartLifecycle, Processes.Watcher {
    private static final Logger LOG = LoggerFactory.getLogger(IndexJobs.class);
    private static final int AT_A_TIME = 8;
    private static final int OF_ONE_HOST = 2;
    private static final int MOST_ATTEMPTS = 3;
    private static final long NO_REPOSITORY = -1; // a list that is asked for must not be empty
    private static final String NO_HOST = "?";
    private static final int STOPPING_SECONDS = 4;

    private final RepositoryRecords repositories;
    private final JobRecords jobs;
    private final Catalogue catalogue;
    private final JobReports reports;
    private final Processes processes;
    private final ThisMachine machine;
    private final Disk disk;
    private final TransactionTemplate transaction;
    private final RepositoryChanges changes;
    private final IndexUpkeep upkeep;
    private final Publisher publisher;
    private final IndexRun run;
    private final HistoryJobs history;
    private final Semaphore wake = new Semaphore(0);
    private final Semaphore free = new Semaphore(AT_A_TIME);
    private final Set<Long> begun = ConcurrentHashMap.newKeySet(); // jobs that are at work here
    private final AtomicBoolean verifying = new AtomicBoolean();
    private volatile boolean running;
    private Thread dispatcher = Thread.ofVirtual().unstarted(() -> {});

    IndexJobs(
            RepositoryRecords repositories,
            JobRecords jobs,
            Catalogue catalogue,
            JobReports reports,
            Processes processes,
            ThisMachine machine,
            Disk disk,
            TransactionTemplate transaction,
            RepositoryChanges changes,
            IndexUpkeep upkeep,
            Publisher publisher,
            IndexRun run,
            HistoryJobs history) {
        this.repositories = repositories;
        this.jobs = jobs;
        this.catalogue = catalogue;
        this.reports = reports;
        this.processes = processes;
        this.machine = machine;
        this.disk = disk;
        this.transaction = transaction;
        this.changes = changes;
        this.upkeep = upkeep;
        this.publisher = publisher;
        this.run = run;
        this.history = history;
    }

    /** @throws IllegalArgumentException if a branch that is wanted is neither a name nor a pattern */
    public static void checkBranch(String wanted) {
        Targets.Pattern.of(wanted);
    }

    /**
     * A repository to register.
     *
     * @param viewers who may see it
     * @param roster that it comes of
     */
    public record Wanted(NewRepository repository, String title, Set<String> viewers, Optional<String> roster) {
        private RepositoryRecord record() {
            RepositoryRecord record = new RepositoryRecord(
                    repository.name(),
                    title,
                    repository.location(),
                    Optional.ofNullable(repository.branches()).orElse(List.of()),
                    Optional.ofNullable(repository.labels()).orElse(List.of()));
            record.viewers().addAll(viewers);
            record.roster(roster);
            return record;
        }
    }

    /** Registers a repository and queues it; its name must be free. */
    public Repository register(Wanted wanted) {
        Repository added = changes.add(wanted.record(), saved -> jobs.save(job(saved, false)));
        wake.release();
        return added;
    }

    /** Registers several and queues them, all of them or, if it fails, none; their names must be free. */
    public void registerAll(List<Wanted> wanted) {
        changes.changeSome(() -> wanted.stream()
                .map(each -> {
                    RepositoryRecord saved = repositories.save(each.record());
                    jobs.save(job(saved, false));
                    return saved.id();
                })
                .toList());
        wake.release();
    }

    /** Says something else of a repository; it is queued if it is to be fetched from elsewhere, or other branches of it. */
    public void describe(Repository repository, NewRepository wanted, Set<String> viewers) throws IOException {
        changes.change(repository.id(), record -> {
            boolean isFetchedAnew = !record.location().equals(wanted.location())
                    || !record.wantedBranches().equals(wanted.branches());
            record.describe(wanted.title(), wanted.location(), wanted.branches(), wanted.labels());
            record.viewers().clear();
            record.viewers().addAll(viewers);
            record.goneSince(Optional.empty());
            if (isFetchedAnew) {
                enqueue(record);
            }
        });
        publisher.publish(repository.id()); // searches know its labels
        wake.release();
    }

    /** Its roster does not list a repository any more. */
    public void gone(Repository repository, Instant since) {
        changes.change(repository.id(), record -> record.goneSince(Optional.of(since)));
    }

    /** Nobody follows a roster any more: what came of it stays. */
    public void leave(String roster) {
        changes.changeSome(() -> catalogue.all().stream()
                .filter(repository -> repository.cameOf(roster))
                .map(Repository::id)
                .filter(id -> repositories
                        .findToChange(id)
                        .map(record -> {
                            record.roster(Optional.empty());
                            record.goneSince(Optional.empty());
                            return true;
                        })
                        .orElse(false))
                .toList());
    }

    /** Queues a repository, unless it is queued already. @return empty if it was removed meanwhile */
    public Optional<Repository> refresh(long repositoryId) {
        Optional<Repository> queued = changes.change(repositoryId, this::enqueue);
        wake.release();
        return queued;
    }

    /**
     * Queues a repository to be fetched, indexed and read anew, with nothing left of what was there before.
     *
     * @return empty if it was removed meanwhile
     */
    public Optional<Repository> purge(long repositoryId) {
        Optional<Repository> queued = changes.change(repositoryId, record -> jobs.save(job(record, true)));
        wake.release();
        return queued;
    }

    /** Queues those that failed and lie where something has changed that keeps them from being fetched. */
    public void retryFailed(Predicate<String> location) {
        catalogue.all().stream()
                .filter(repository ->
                        repository.state() == RepositoryRecord.State.FAILED && location.test(repository.location()))
                .forEach(repository -> refresh(repository.id()));
    }

    /** Says who may see a repository. @return empty if it was removed meanwhile */
    public Optional<Repository> show(long repositoryId, Set<String> viewers) {
        return changes.change(repositoryId, record -> {
            record.viewers().clear();
            record.viewers().addAll(viewers);
        });
    }

    private static JobRecord job(RepositoryRecord record, boolean purges) {
        return new JobRecord(record.id(), host(record.location()), purges);
    }

    private void enqueue(RepositoryRecord record) {
        if (jobs.findByRepositoryId(record.id()).stream().allMatch(JobRecord::running)) {
            jobs.save(job(record, false));
        }
    }

    /** Takes a repository and all that is indexed of it out; what others do not share is deleted. */
    public void remove(Repository repository) throws IOException {
        changes.remove(repository, () -> jobs.deleteByRepositoryId(repository.id()));
        history.removed(repository.id());
        publisher.publish(repository.id());
        run.removed(repository.id());
    }

    @Override
    public void start() {
        running = true;
        takeBack();
        processes.watch(this);
        if (processes.has(Duty.INDEXING)) {
            enqueueLost();
            dispatcher = Thread.ofVirtual().name("index-jobs").start(this::dispatch);
            verifySoon();
        }
        if (!processes.has(Duty.SERVING)) {
            LOG.info("Indexing has begun"); // which the launcher waits for
        }
    }

    @Override
    public void ended() {
        takeBack();
        deleteStrays();
    }

    /** What this process has recorded something in the place of, but could not publish any more. */
    @Override
    public void left() {
        deleteStrays();
    }

    private void deleteStrays() {
        try {
            upkeep.deleteStrays();
        } catch (IOException e) {
            LOG.info("What a process that has ended left behind stays until the next start: {}", e.getMessage());
        }
    }

    @Override
    public boolean isIdle() {
        return free.availablePermits() == AT_A_TIME;
    }

    /** Jobs of processes that have ended are begun again, unless they ended their processes several times. */
    private void takeBack() {
        Set<Long> living = processes.living();
        changes.changeSome(() -> {
            List<Long> changed = new ArrayList<>();
            for (JobRecord job : jobs.findByRunningTrue()) {
                boolean isAtWork = job.process().filter(living::contains).isPresent();
                if (isAtWork || jobs.takeBack(job.id(), job.process().orElse(null)) == 0) {
                    continue; // somebody is at it, or has just taken it back
                }
                if (job.attempts() >= MOST_ATTEMPTS) {
                    repositories
                            .findToChange(job.repositoryId())
                            .ifPresent(
                                    record -> record.state(
                                            State.FAILED,
                                            Optional.of(
                                                    "The service ended " + job.attempts()
                                                            + " times while this was being indexed, so it is not tried again by itself. Refresh it to try once more.")));
                    jobs.deleteAllByIdInBatch(List.of(job.id()));
                    reports.found(job.repositoryId(), new JobReports.Finding.Held());
                }
                changed.add(job.repositoryId());
            }
            return changed;
        });
        wake();
    }

    /** There may be something to do. */
    void wake() {
        wake.release();
    }

    /** Queues the repositories of which the index has not everything. */
    private void enqueueLost() {
        Set<String> incomplete =
                upkeep.incomplete().stream().map(Branch::repository).collect(Collectors.toSet());
        List<Long> lost = catalogue.all().stream()
                .filter(repository -> !repository.isBusy())
                .filter(repository -> incomplete.contains(repository.name())
                        || repository.state() != State.FAILED && repository.isInParts()
                        || repository.state() != State.FAILED
                                && repository.branches().isEmpty()
                                && repository.problem().isEmpty())
                .map(Repository::id)
                .toList();
        if (!lost.isEmpty()) {
            changes.changeSome(() -> {
                repositories.findAllById(lost).forEach(this::enqueue);
                return lost;
            });
        }
        wake.release();
    }

    /** The text of segments is not read when they are opened, or a start would take as long as reading the index. */
    private void verifyAfterStart() {
        try {
            verify();
        } catch (IOException | RuntimeException e) {
            LOG.warn("The index could not be verified: {}", e.getMessage());
        }
    }

    /** Verifies in the background, unless that is being done. */
    void verifySoon() {
        if (verifying.compareAndSet(false, true)) {
            Thread.ofPlatform().daemon().name("verify-index").start(() -> {
                try {
                    verifyAfterStart();
                } finally {
                    verifying.set(false);
                }
            });
        }
    }

    /** Compares all files of the index with their checksums, and queues the repositories of damaged ones. */
    public IndexUpkeep.Check verify() throws IOException {
        IndexUpkeep.Check check = upkeep.verify();
        if (!check.damaged().isEmpty()) {
            enqueueLost();
            history.requestMissing();
        }
        return check;
    }

    private void dispatch() {
        boolean told = false; // that there is no room
        while (running) {
            try {
                free.acquire();
                if (processes.isStruckOff() || machine.isRetired()) {
                    free.release();
                    pause();
                    continue;
                }
                Optional<String> noRoom = disk.problem();
                Optional<JobRecord> job = noRoom.isPresent() ? Optional.empty() : next();
                if (noRoom.isPresent() && !told) {
                    LOG.warn(noRoom.get());
                }
                told = noRoom.isPresent();
                if (job.isPresent()) {
                    begun.add(job.get().id());
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
            Set<Long> busy = new HashSet<>(run.atWork());
            Map<String, Integer> ofHost = new HashMap<>();
            for (JobRecord job : jobs.findByRunningTrue()) {
                if (isBegunUnknowingly(job)) {
                    jobs.putBack(job.id(), processes.id());
                }
                busy.add(job.repositoryId());
                ofHost.merge(job.host(), 1, Integer::sum);
            }
            busy.add(NO_REPOSITORY);
            Set<String> full = new HashSet<>(Set.of(NO_HOST));
            ofHost.forEach((host, count) -> {
                if (!host.isEmpty() && count >= OF_ONE_HOST) {
                    full.add(host);
                }
            });
            return jobs.findNext(busy, full).filter(job -> jobs.begin(job.id(), processes.id()) == 1);
        });
    }

    /** Whether this process has begun a job without hearing of it: the records went away just then. */
    private boolean isBegunUnknowingly(JobRecord job) {
        return job.process().filter(own -> own == processes.id()).isPresent() && !begun.contains(job.id());
    }

    /** The host of a location, in small letters: one that does not answer must not hold up the others. */
    private static String host(String location) {
        try {
            return Location.parse(location)
                    .host()
                    .map(host -> host.name().toLowerCase(Locale.ROOT))
                    .orElse("");
        } catch (RepositoryProblemException e) {
            return ""; // its job will tell
        }
    }

    private void work(JobRecord job) {
        try {
            run.run(job);
            disk.hadRoom();
            if (processes.othersIndex()) {
                enqueueLost(); // one of us may have left behind what the other counted on
            }
        } catch (CancellationException e) {
            LOG.info("Indexing was interrupted; it will go on at the next start");
            putBack(job);
        } catch (NoRoomException e) {
            LOG.warn("The disk is full; a job waits until there is room");
            disk.wasFull();
            putBack(job);
        } catch (RuntimeException e) {
            LOG.warn("A job is tried again: {}", e.getMessage());
            pause();
            putBack(job);
        } finally {
            begun.remove(job.id());
            free.release();
            wake.release();
        }
    }

    /** If this process is struck off meanwhile, others take the job back. */
    private void putBack(JobRecord job) {
        long process = processes.id();
        do {
            try {
                transaction.executeWithoutResult(_ -> jobs.putBack(job.id(), process));
                changes.tell(job.repositoryId());
                return;
            } catch (StruckOffException e) {
                return;
            } catch (RuntimeException e) {
                pause();
            }
        } while (running);
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
        try {
            if (free.tryAcquire(AT_A_TIME, STOPPING_SECONDS, TimeUnit.SECONDS)) { // jobs at work are put back
                free.release(AT_A_TIME);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
