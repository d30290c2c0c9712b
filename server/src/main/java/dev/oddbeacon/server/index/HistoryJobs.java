package dev.oddbeacon.server.index;

import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryIngest;
import dev.oddbeacon.core.history.HistoryMerge;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.HistoryState;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Reads the past of repositories, one after the other, once their files can be searched. What is read is recorded file
 * by file, so a stop at any moment costs little, and the next start goes on with what is missing.
 */
@Component
public class HistoryJobs implements SmartLifecycle, Processes.Watcher {
    private static final Logger LOG = LoggerFactory.getLogger(HistoryJobs.class);
    private static final int THREADS = Math.max(1, Runtime.getRuntime().availableProcessors());
    private static final int AT_A_TIME = 2;
    private static final Duration STOPPING = Duration.ofSeconds(2); // a worker
    private static final long STEP_NANOS = 200_000_000;

    private final Settings settings;
    private final RepositoryRecords repositories;
    private final HistoryRecords histories;
    private final TransactionTemplate transaction;
    private final Catalogue catalogue;
    private final RepositoryChanges changes;
    private final CurrentView current;
    private final Publisher publisher;
    private final IndexUpkeep upkeep;
    private final Disk disk;
    private final Processes processes;
    private final News news;
    private final Claims claims;
    private final JobReports reports;
    private final SharedFiles shared;
    private final LocalMirrors localMirrors;
    private final ThisMachine machine;
    private final BlockingQueue<Long> wanted = new LinkedBlockingQueue<>();
    private final Set<Long> queued = ConcurrentHashMap.newKeySet(); // what is in there
    private volatile boolean running;
    private final Set<Long> atWork = ConcurrentHashMap.newKeySet();
    private final Set<Long> removed = ConcurrentHashMap.newKeySet();
    private final Set<Long> held = ConcurrentHashMap.newKeySet();
    private final List<Thread> workers = new ArrayList<>();

    HistoryJobs(
            Settings settings,
            RepositoryRecords repositories,
            HistoryRecords histories,
            TransactionTemplate transaction,
            Catalogue catalogue,
            RepositoryChanges changes,
            CurrentView current,
            Publisher publisher,
            IndexUpkeep upkeep,
            Disk disk,
            Processes processes,
            News news,
            Claims claims,
            JobReports reports,
            SharedFiles shared,
            LocalMirrors localMirrors,
            ThisMachine machine) {
        this.machine = machine;
        this.settings = settings;
        this.repositories = repositories;
        this.histories = histories;
        this.transaction = transaction;
        this.catalogue = catalogue;
        this.changes = changes;
        this.current = current;
        this.publisher = publisher;
        this.upkeep = upkeep;
        this.disk = disk;
        this.processes = processes;
        this.news = news;
        this.claims = claims;
        this.reports = reports;
        this.shared = shared;
        this.localMirrors = localMirrors;
    }

    /** Asks for what is missing of a repository's past. */
    public void request(long repositoryId) {
        if (queued.add(repositoryId)) {
            wanted.add(repositoryId);
        }
    }

    /** A repository was removed: what is being read of its past is not wanted any more. */
    void removed(long repositoryId) {
        if (atWork.contains(repositoryId)) {
            removed.add(repositoryId);
        }
    }

    /**
     * Ends reading the past of a repository, and keeps it from beginning until {@link #letGo}: its mirror is about to be
     * another.
     */
    void hold(long repositoryId, BooleanSupplier ending) {
        held.add(repositoryId);
        removed(repositoryId);
        while (atWork.contains(repositoryId) || !claims.take(Claims.Kind.PAST, repositoryId)) {
            if (ending.getAsBoolean()) {
                held.remove(repositoryId);
                throw new CancellationException("no time to wait for who reads the past");
            }
            LockSupport.parkNanos(Duration.ofMillis(20).toNanos());
        }
    }

    void letGo(long repositoryId) {
        claims.release(Claims.Kind.PAST, repositoryId);
        held.remove(repositoryId);
    }

    /** Asks for the past of all repositories of which something is missing. */
    public void requestMissing() {
        catalogue.all().stream()
                .filter(repository ->
                        !repository.past().complete() && !repository.branches().isEmpty())
                .forEach(repository -> request(repository.id()));
    }

    @Override
    public void start() {
        running = true;
        if (!processes.has(Duty.INDEXING)) {
            return;
        }
        processes.watch(this);
        requestMissing();
        for (int i = 1; i <= AT_A_TIME; i++) {
            workers.add(Thread.ofPlatform().daemon().name("history-" + i).start(this::work));
        }
    }

    @Override
    public void ended() {
        requestMissing();
    }

    @Override
    public boolean isIdle() {
        return atWork.isEmpty();
    }

    @Override
    public void returned() {
        requestMissing();
    }

    private void work() {
        while (running) {
            try {
                long id = wanted.take();
                queued.remove(id);
                boolean mayBegin = disk.problem().isEmpty() && !processes.isStruckOff() && !machine.isRetired();
                if (!mayBegin || !atWork.add(id)) {
                    Thread.sleep(
                            mayBegin ? 200 : 1_000); // another thread reads it: it may have begun before it changed
                    request(id);
                    continue;
                }
                try {
                    if (held.contains(id) || !claims.take(Claims.Kind.PAST, id)) {
                        Thread.sleep(200); // the same, in another process
                        request(id);
                    } else {
                        try {
                            read(id);
                        } finally {
                            claims.release(Claims.Kind.PAST, id);
                        }
                    }
                } catch (NoRoomException e) {
                    LOG.warn("The disk is full; a past waits until there is room");
                    disk.wasFull();
                    request(id);
                } catch (RuntimeException e) {
                    if (!Outages.isOutage(e)) {
                        throw e;
                    }
                    LOG.warn("The past of a repository is tried again: {}", e.getMessage());
                    Thread.sleep(1_000);
                    request(id);
                } finally {
                    atWork.remove(id);
                    removed.remove(id);
                }
            } catch (InterruptedException e) {
                return;
            } catch (CancellationException e) {
                // the service stops, or the repository was removed
            } catch (RuntimeException e) {
                if (running) { // else the service stops, and with it what the records are read by
                    LOG.error("Reading the past of a repository failed", e);
                }
            }
        }
    }

    private void read(long id) {
        Optional<RepositoryRecord> record = transaction.execute(_ -> repositories.findById(id));
        if (record.isEmpty() || record.get().branches().isEmpty()) {
            return;
        }
        if (!localMirrors.isReady(record.get())) {
            localMirrors.want(id); // and whoever has it meanwhile reads the past
            return;
        }
        Optional<String> problem = Optional.empty();
        long deadline = System.nanoTime() + settings.jobTime().toNanos();
        try {
            publishIfStale(record.get());
            read(record.get(), deadline);
            merge(record.get());
        } catch (IOException | RuntimeException e) {
            if (isEnding()
                    || removed.contains(id)
                    || e instanceof CancellationException && !repositories.existsById(id)) {
                throw new CancellationException("the process stops, or the repository was removed");
            }
            if (Disk.isFull(e)) {
                throw new NoRoomException();
            }
            if (e instanceof RuntimeException outage && Outages.isOutage(outage)) {
                throw outage;
            }
            LOG.warn("The past of {} cannot be read", record.get().name(), e);
            problem = Optional.of("The past cannot be read to its end: "
                    + (System.nanoTime() > deadline
                            ? "it takes longer than " + settings.jobTime().toMinutes() + " minutes."
                            : e instanceof IOException
                                    ? Visible.escaped(String.valueOf(e.getMessage()))
                                    : "something unexpected happened, of which the log of the service tells more."));
        }
        finish(id, record.get().history().losses(), problem);
    }

    /** What is read goes on from what is there: the view must not have a file that was lost, or lack one of another process. */
    private void publishIfStale(RepositoryRecord record) throws IOException {
        Set<String> recorded = histories.findByRepositoryIdIn(List.of(record.id())).stream()
                .map(HistoryRecord::file)
                .collect(Collectors.toSet());
        View view = current.acquire();
        boolean isStale;
        try {
            isStale = !recorded.equals(view.past(record.name()).graph().files().stream()
                    .map(file -> file.file().getFileName().toString())
                    .collect(Collectors.toSet()));
        } finally {
            view.release();
        }
        if (isStale) {
            publisher.publish(record.id());
        }
    }

    private void read(RepositoryRecord record, long deadline) throws IOException {
        List<ObjectId> tips = record.branches().stream()
                .map(BranchRecord::commitId)
                .distinct()
                .map(ObjectId::of)
                .toList();
        View view = current.acquire();
        try (MirrorReader mirror = new MirrorReader(settings.mirror(record.id()))) {
            CommitGraph known = view.past(record.name()).graph();
            boolean wasComplete =
                    record.history().complete() && record.history().problem().isEmpty();
            if (wasComplete && tips.stream().allMatch(tip -> known.find(tip) != CommitGraph.UNKNOWN)) {
                return;
            }
            changes.change(record.id(), fresh -> fresh.history(fresh.history().begun()));
            long[] last = {System.nanoTime()};
            new HistoryIngest(processes.newFiles(), THREADS)
                    .run(
                            mirror::history,
                            tips,
                            settings.historyCommits(),
                            wasComplete,
                            commit -> known.find(commit) != CommitGraph.UNKNOWN,
                            (done, total) -> {
                                if (System.nanoTime() - last[0] > STEP_NANOS) {
                                    last[0] = System.nanoTime();
                                    reports.progress(
                                            record.id(), new Repository.Progress("reading commits", done, total));
                                }
                            },
                            () -> isEnding() || removed.contains(record.id()) || System.nanoTime() > deadline,
                            file -> added(record.id(), file));
        } finally {
            view.release();
        }
    }

    /** Whether nothing that is being read may be recorded any more. */
    private boolean isEnding() {
        return !running || processes.isStruckOff();
    }

    private void added(long repositoryId, Path file) throws IOException {
        deleteIfItFails(file, repositoryId, () -> {
            if (!repositories.existsById(repositoryId)) { // then nobody would ever delete the file
                throw new CancellationException("the repository was removed");
            }
            histories.save(new HistoryRecord(
                    file.getFileName().toString(), repositoryId, file.toFile().length()));
        });
        publisher.publish(repositoryId);
    }

    /** Records a new file in one transaction; without it, nobody would know of the file. */
    private void deleteIfItFails(Path file, long repositoryId, Runnable recording) {
        try {
            shared.keep(List.of(file));
            transaction.executeWithoutResult(_ -> {
                recording.run();
                news.tell(News.Kind.REPOSITORY, repositoryId);
            });
        } catch (RuntimeException e) {
            upkeep.deleteUnlessRecorded(List.of(file));
            throw e;
        }
    }

    private void merge(RepositoryRecord record) throws IOException {
        for (boolean more = true; more && !isEnding(); ) {
            View view = current.acquire();
            try {
                Past past = view.past(record.name());
                List<HistoryReader> due = HistoryMerge.due(past.graph().files());
                more = !due.isEmpty();
                if (more) {
                    Path merged = HistoryIngest.newFile(processes.newFiles());
                    BitSet reached = reached(record, past);
                    boolean any = HistoryMerge.write(
                            due,
                            (file, commit) -> reached.get(
                                    past.graph().base(past.graph().files().indexOf(file)) + commit),
                            merged);
                    try {
                        deleteIfItFails(merged, record.id(), () -> {
                            int gone = histories.deleteNamed(due.stream()
                                    .map(file -> file.file().getFileName().toString())
                                    .toList());
                            if (gone < due.size()) {
                                throw new CancellationException("one of them was lost meanwhile");
                            }
                            if (any) {
                                histories.save(new HistoryRecord(
                                        merged.getFileName().toString(),
                                        record.id(),
                                        merged.toFile().length()));
                            }
                        });
                    } catch (CancellationException e) {
                        return; // whoever says that the past was read finds out as well
                    }
                    publisher.publish(record.id());
                }
            } finally {
                view.release();
            }
        }
    }

    private static BitSet reached(RepositoryRecord record, Past past) {
        BitSet reached = new BitSet();
        record.branches().forEach(branch -> reached.or(past.reachable(ObjectId.of(branch.commitId()))));
        return reached;
    }

    /**
     * Says that the past was read, unless some of what was there when reading began was lost meanwhile: then it is read
     * again.
     *
     * @param losses that there had been when it began
     */
    void finish(long id, int losses, Optional<String> problem) {
        changes.change(id, record -> {
            if (record.history().losses() == losses) {
                record.history(state(record, problem));
            } else {
                request(id);
            }
            record.pastBytes(histories.bytes(id));
        });
    }

    private HistoryState state(RepositoryRecord record, Optional<String> problem) {
        View view = current.acquire();
        try {
            Past past = view.past(record.name());
            CommitGraph graph = past.graph();
            BitSet reached = reached(record, past);
            boolean complete = record.branches().stream()
                    .allMatch(branch -> graph.find(ObjectId.of(branch.commitId())) != CommitGraph.UNKNOWN);
            Optional<Instant> oldest = reached.stream()
                    .mapToObj(graph::committedSeconds)
                    .min(Long::compare)
                    .map(Instant::ofEpochSecond);
            IntStream withoutLines =
                    reached.stream().filter(commit -> !graph.file(commit).isWhole(graph.row(commit)));
            return record.history()
                    .read(
                            complete || problem.isPresent(),
                            reached.cardinality(),
                            oldest,
                            graph.open(reached),
                            (int) withoutLines.count(),
                            problem);
        } finally {
            view.release();
        }
    }

    @Override
    public void stop() {
        running = false;
        workers.forEach(Thread::interrupt);
        try {
            for (Thread worker : workers) {
                worker.join(STOPPING); // before the records are closed
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
