package dev.oddbeacon.server.index;

import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryIngest;
import dev.oddbeacon.core.history.HistoryMerge;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.HistoryState;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.stream.IntStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Reads the past of repositories, one after the other, once their files can be searched. What is read is recorded file
 * by file, so a stop at any moment costs little, and the next start goes on with what is missing.
 */
@Component
public class HistoryJobs implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(HistoryJobs.class);
    private static final int THREADS = Math.max(1, Runtime.getRuntime().availableProcessors());
    private static final long STEP_NANOS = 200_000_000;

    private final Settings settings;
    private final RepositoryRecords repositories;
    private final HistoryRecords histories;
    private final TransactionTemplate transaction;
    private final Catalogue catalogue;
    private final RepositoryChanges changes;
    private final CurrentView current;
    private final Publisher publisher;
    private final BlockingQueue<Long> wanted = new LinkedBlockingQueue<>();
    private volatile boolean running;
    private Thread worker = Thread.ofVirtual().unstarted(() -> {});

    HistoryJobs(
            Settings settings,
            RepositoryRecords repositories,
            HistoryRecords histories,
            TransactionTemplate transaction,
            Catalogue catalogue,
            RepositoryChanges changes,
            CurrentView current,
            Publisher publisher) {
        this.settings = settings;
        this.repositories = repositories;
        this.histories = histories;
        this.transaction = transaction;
        this.catalogue = catalogue;
        this.changes = changes;
        this.current = current;
        this.publisher = publisher;
    }

    /** Asks for what is missing of a repository's past. */
    public void request(long repositoryId) {
        if (!wanted.contains(repositoryId)) {
            wanted.add(repositoryId);
        }
    }

    /** Asks for the past of all repositories of which something is missing. */
    public void requestMissing() {
        repositories.findAll().stream()
                .filter(record ->
                        !record.history().complete() && !record.branches().isEmpty())
                .forEach(record -> request(record.id()));
    }

    @Override
    public void start() {
        running = true;
        requestMissing();
        worker = Thread.ofPlatform().daemon().name("history").start(this::work);
    }

    private void work() {
        while (running) {
            try {
                long id = wanted.take();
                try {
                    read(id);
                } catch (DataAccessException | TransactionException e) {
                    LOG.warn(
                            "The records cannot be reached; the past of a repository is tried again: {}",
                            e.getMessage());
                    Thread.sleep(1_000);
                    request(id);
                }
            } catch (CancellationException | InterruptedException e) {
                return;
            } catch (RuntimeException e) {
                LOG.error("Reading the past of a repository failed", e);
            }
        }
    }

    private void read(long id) {
        Optional<RepositoryRecord> record = transaction.execute(_ -> repositories.findById(id));
        if (record.isEmpty() || record.get().branches().isEmpty()) {
            return;
        }
        Optional<String> problem = Optional.empty();
        try {
            read(record.get());
            merge(record.get());
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            if (!running) {
                throw new CancellationException("the service stops");
            }
            LOG.warn("The past of {} cannot be read", record.get().name(), e);
            problem = Optional.of("The past cannot be read to its end: " + e.getMessage());
        }
        finish(id, problem);
    }

    private void read(RepositoryRecord record) throws IOException {
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
            new HistoryIngest(settings.indexFolder(), THREADS)
                    .run(
                            mirror::history,
                            tips,
                            settings.historyCommits(),
                            wasComplete,
                            commit -> known.find(commit) != CommitGraph.UNKNOWN,
                            (done, total) -> {
                                if (System.nanoTime() - last[0] > STEP_NANOS) {
                                    last[0] = System.nanoTime();
                                    catalogue.progress(
                                            record.name(), new Repository.Progress("reading commits", done, total));
                                }
                            },
                            () -> !running,
                            file -> added(record.id(), file));
        } finally {
            view.release();
        }
    }

    private void added(long repositoryId, Path file) throws IOException {
        transaction.executeWithoutResult(_ -> repositories
                .findById(repositoryId)
                .ifPresent(_ -> histories.save(new HistoryRecord(
                        file.getFileName().toString(),
                        repositoryId,
                        file.toFile().length()))));
        publisher.publish();
    }

    private void merge(RepositoryRecord record) throws IOException {
        for (boolean more = true; more && running; ) {
            View view = current.acquire();
            try {
                Past past = view.past(record.name());
                List<HistoryReader> due = HistoryMerge.due(past.graph().files());
                more = !due.isEmpty();
                if (more) {
                    Path merged = HistoryIngest.newFile(settings.indexFolder());
                    BitSet reached = reached(record, past);
                    boolean any = HistoryMerge.write(
                            due,
                            (file, commit) -> reached.get(
                                    past.graph().base(past.graph().files().indexOf(file)) + commit),
                            merged);
                    transaction.executeWithoutResult(_ -> {
                        histories.deleteAllById(due.stream()
                                .map(file -> file.file().getFileName().toString())
                                .toList());
                        if (any) {
                            histories.save(new HistoryRecord(
                                    merged.getFileName().toString(),
                                    record.id(),
                                    merged.toFile().length()));
                        }
                    });
                    publisher.publish();
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

    private void finish(long id, Optional<String> problem) {
        changes.change(id, record -> record.history(state(record, problem)));
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
            return new HistoryState(
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
        worker.interrupt();
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
