package dev.oddbeacon.server.index;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.Scheduler;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.segment.DamagedFileException;
import dev.oddbeacon.core.segment.SegmentMerge;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.HistoryState;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecord;
import dev.oddbeacon.server.records.SegmentRecords;
import dev.oddbeacon.server.web.GoneException;
import jakarta.annotation.PostConstruct;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The current view, and those that cursors still need. The records say which files are live; a view is made from
 * them at the start and after each change.
 */
@Component
public class LiveIndex {
    private static final Logger LOG = LoggerFactory.getLogger(LiveIndex.class);
    private static final Duration CURSORS_LIVE = Duration.ofMinutes(10);

    private final Path folder;
    private final RepositoryRecords repositories;
    private final SegmentRecords segments;
    private final HistoryRecords histories;
    private final TransactionTemplate transaction;
    private final Cache<Long, View> kept = Caffeine.newBuilder().expireAfterWrite(CURSORS_LIVE).scheduler(Scheduler.systemScheduler())
            .removalListener((Long _, View view, com.github.benmanes.caffeine.cache.RemovalCause _) -> view.release()).build();
    private View current = ViewBuilder.empty();

    LiveIndex(Settings settings, RepositoryRecords repositories, SegmentRecords segments, HistoryRecords histories, TransactionTemplate transaction) {
        this.folder = settings.indexFolder();
        this.repositories = repositories;
        this.segments = segments;
        this.histories = histories;
        this.transaction = transaction;
    }

    @PostConstruct
    void open() {
        try {
            Files.createDirectories(folder);
            transaction.executeWithoutResult(_ -> forgetDamaged());
            publish();
            deleteStrays();
        } catch (IOException e) {
            throw new UncheckedIOException("The index folder " + folder + " cannot be used.", e);
        }
    }

    /** Takes files out of the records that are gone or damaged, so that what they held is indexed anew. */
    private void forgetDamaged() {
        for (SegmentRecord segment : segments.findAll()) {
            try (SegmentReader _ = new SegmentReader(folder.resolve(segment.file()))) {
                continue;
            } catch (IOException e) {
                LOG.warn("{} Its repositories will be indexed anew.", e.getMessage());
                segments.delete(segment);
            }
        }
        for (HistoryRecord history : histories.findAll()) {
            try (HistoryReader _ = new HistoryReader(folder.resolve(history.file()))) {
                continue;
            } catch (IOException e) {
                LOG.warn("{} Its commits will be read anew.", e.getMessage());
                forget(history);
            }
        }
        for (RepositoryRecord repository : repositories.findAll()) {
            repository.branches().removeIf(branch -> {
                try (SnapshotReader _ = new SnapshotReader(folder.resolve(branch.snapshotFile()))) {
                    return false;
                } catch (IOException e) {
                    LOG.warn("{} Branch {} of {} will be indexed anew.", e.getMessage(), branch.name(), repository.name());
                    return true;
                }
            });
        }
    }

    private void forget(HistoryRecord history) {
        repositories.findById(history.repositoryId()).ifPresent(repository -> repository.history(HistoryState.unfinished()));
        histories.delete(history);
    }

    private void deleteStrays() throws IOException {
        Set<Path> live = new HashSet<>();
        current.segments().forEach(segment -> live.add(segment.file()));
        for (int rank = 0; rank < current.branches().size(); rank++) {
            live.add(current.snapshot(rank).file());
            current.past(current.branch(rank).repository()).graph().files().forEach(history -> live.add(history.file()));
        }
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(path -> !live.contains(path)).toList()) {
                LOG.info("Removing {}, which an interrupted job left behind", file.getFileName());
                Files.deleteIfExists(file);
            }
        }
    }

    /** Makes the view that the records describe the current one. */
    public synchronized void publish() throws IOException {
        List<Path> files = segments.findAll().stream().map(SegmentRecord::file).sorted().map(folder::resolve).toList();
        List<ViewBuilder.Wanted> wanted = new ArrayList<>();
        Map<Long, List<Path>> byRepository = histories.findAll().stream().sorted(Comparator.comparing(HistoryRecord::file))
                .collect(Collectors.groupingBy(HistoryRecord::repositoryId, Collectors.mapping(record -> folder.resolve(record.file()), Collectors.toList())));
        Map<String, List<Path>> pasts = new HashMap<>();
        for (RepositoryRecord repository : repositories.findAll()) {
            if (byRepository.containsKey(repository.id())) {
                pasts.put(repository.name(), byRepository.get(repository.id()));
            }
            for (BranchRecord branch : repository.branches()) {
                wanted.add(new ViewBuilder.Wanted(new Branch(repository.name(), Set.copyOf(repository.labels()), branch.name(), branch.commitId(),
                        branch.committed(), branch.searchedByDefault()), folder.resolve(branch.snapshotFile())));
            }
        }
        View next = ViewBuilder.next(current, files, wanted, pasts);
        ViewBuilder.giveUpAbsent(current, next);
        current.release();
        current = next;
    }

    /**
     * Takes segments that no branch uses any more out of the index. Only while nothing is being ingested, which
     * counts on the blobs that it knows.
     */
    public synchronized void dropUnused() throws IOException {
        List<String> unused = current.segments().stream().filter(segment -> !current.isUsed(segment))
                .map(segment -> segment.file().getFileName().toString()).toList();
        if (!unused.isEmpty()) {
            segments.deleteAllById(unused);
            publish();
        }
    }

    /**
     * Makes one segment of several, if it is time. Only while nothing is being ingested, as for {@link #dropUnused}.
     *
     * @return whether anything changed; then there may be more to do
     */
    public boolean mergeSome(long largest) throws IOException {
        View view = acquire();
        try {
            SegmentMerge.Wanted wanted = (segment, blob) -> view.placeCount(segment, blob) > 0;
            List<SegmentReader> due = SegmentMerge.due(view.segments().stream().filter(view::isUsed).toList(), wanted, largest);
            if (due.isEmpty()) {
                return false;
            }
            Path merged = folder.resolve(UUID.randomUUID() + ".segment");
            SegmentMerge.write(due, wanted, merged);
            transaction.executeWithoutResult(_ -> {
                segments.deleteAllById(due.stream().map(segment -> segment.file().getFileName().toString()).toList());
                segments.save(new SegmentRecord(merged.getFileName().toString(), merged.toFile().length()));
            });
            publish();
            return true;
        } finally {
            view.release();
        }
    }

    /**
     * What a check of all files found.
     *
     * @param damaged names of files that are not as they were written; they are out of the index now
     */
    public record Check(int files, long bytes, List<String> damaged) {}

    /** Reads all files of the current view and compares them with their checksums; takes damaged ones out of the index. */
    public Check verify() throws IOException {
        View view = acquire();
        try {
            long bytes = 0;
            Set<String> damaged = new TreeSet<>();
            for (SegmentReader segment : view.segments()) {
                bytes += segment.size();
                check(segment.file(), segment::verify, damaged);
            }
            for (int rank = 0; rank < view.branches().size(); rank++) {
                check(view.snapshot(rank).file(), view.snapshot(rank)::verify, damaged);
            }
            List<HistoryReader> pasts = view.branches().stream().map(Branch::repository).distinct().flatMap(repository -> view.past(repository).graph().files().stream()).toList();
            for (HistoryReader history : pasts) {
                bytes += history.size();
                check(history.file(), history::verify, damaged);
            }
            if (!damaged.isEmpty()) {
                transaction.executeWithoutResult(_ -> {
                    damaged.forEach(segments::deleteById);
                    histories.findAllById(damaged).forEach(this::forget);
                    repositories.findAll().forEach(repository -> repository.branches().removeIf(branch -> damaged.contains(branch.snapshotFile())));
                });
                publish();
            }
            return new Check(view.segments().size() + view.branches().size() + pasts.size(), bytes, List.copyOf(damaged));
        } finally {
            view.release();
        }
    }

    private interface Verification {
        void run() throws DamagedFileException;
    }

    private static void check(Path file, Verification verification, Set<String> damaged) {
        try {
            verification.run();
        } catch (DamagedFileException e) {
            LOG.warn("{} It is taken out of the index; its repositories will be indexed anew.", e.getMessage());
            damaged.add(file.getFileName().toString());
        }
    }

    /** Branches whose files are not all in the index. */
    public synchronized List<Branch> incomplete() {
        return ViewBuilder.incomplete(current);
    }

    /** The current view; the caller releases it. */
    public synchronized View acquire() {
        if (!current.acquire()) {
            throw new IllegalStateException("the current view is closed");
        }
        return current;
    }

    /**
     * The view of a number, which a cursor names, or the current one; the caller releases it.
     *
     * @throws GoneException if it is too old
     */
    public View view(Optional<Long> number) {
        return number.isEmpty() ? acquire() : acquire(number.get()).orElseThrow(() -> new GoneException("The cursor is older than ten minutes and the index has changed since. Search again from the start."));
    }

    /** A view that a cursor names; the caller releases it. Nothing if it is too old. */
    public synchronized Optional<View> acquire(long number) {
        View view = current.number() == number ? current : kept.getIfPresent(number);
        return view != null && view.acquire() ? Optional.of(view) : Optional.empty();
    }

    /** Keeps a view for the cursor that is about to be handed out. */
    public synchronized void keep(View view) {
        if (view.acquire()) {
            kept.put(view.number(), view); // the entry before, if any, is released by the listener
        }
    }

    @PreDestroy
    synchronized void close() {
        kept.invalidateAll();
        kept.cleanUp();
        current.release();
    }
}
