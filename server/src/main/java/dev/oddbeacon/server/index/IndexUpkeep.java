package dev.oddbeacon.server.index;

import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.segment.DamagedFileException;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.SegmentMerge;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.IndexFiles;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import dev.oddbeacon.git.MirrorFolder;
import dev.oddbeacon.server.CannotStartException;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.objects.StoreUnreachableException;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecord;
import dev.oddbeacon.server.records.SegmentRecords;
import jakarta.annotation.PostConstruct;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Keeps the live files in order: at the start damaged ones and strays are removed, later unused segments are dropped
 * and small ones merged; on request all are compared with their checksums.
 */
@Component
public class IndexUpkeep {
    private static final Logger LOG = LoggerFactory.getLogger(IndexUpkeep.class);

    private final Path folder;
    private final Path mirrors;
    private final RepositoryRecords repositories;
    private final SegmentRecords segments;
    private final HistoryRecords histories;
    private final TransactionTemplate transaction;
    private final RepositoryChanges changes;
    private final Catalogue catalogue;
    private final Groups groups;
    private final Processes processes;
    private final News news;
    private final Claims claims;
    private final CurrentView current;
    private final Publisher publisher;
    private final SharedFiles shared;

    IndexUpkeep(
            Settings settings,
            RepositoryRecords repositories,
            SegmentRecords segments,
            HistoryRecords histories,
            TransactionTemplate transaction,
            RepositoryChanges changes,
            Catalogue catalogue,
            Groups groups,
            Processes processes,
            News news,
            Claims claims,
            CurrentView current,
            Publisher publisher,
            SharedFiles shared) {
        this.folder = settings.indexFolder();
        this.mirrors = settings.mirror(0).getParent();
        this.repositories = repositories;
        this.segments = segments;
        this.histories = histories;
        this.transaction = transaction;
        this.changes = changes;
        this.catalogue = catalogue;
        this.groups = groups;
        this.processes = processes;
        this.news = news;
        this.claims = claims;
        this.current = current;
        this.publisher = publisher;
        this.shared = shared;
    }

    @PostConstruct
    void open() {
        try {
            Files.createDirectories(folder);
            publishWhatCanBeRead();
            deleteStrays();
            deleteMirrorsOfNobody();
        } catch (StoreUnreachableException e) { // it must not look as if everything were lost
            throw new CannotStartException(e.getMessage());
        } catch (IOException e) {
            throw new UncheckedIOException("The index folder " + folder + " cannot be used.", e);
        }
    }

    private void publishWhatCanBeRead() throws IOException {
        try {
            publisher.publish();
        } catch (IOException e) {
            LOG.warn("Not all of the index can be opened: {}", e.getMessage());
            if (shared.store().isPresent()) {
                replaceFromStore(e);
            }
            changes.changeSome(this::forgetDamaged);
            publisher.publish();
        }
    }

    private void replaceFromStore(IOException first) throws IOException {
        Map<Path, IOException> unreadable = new HashMap<>();
        for (String name : recordedNow()) {
            Path file = folder.resolve(name);
            whyUnreadable(file).ifPresent(why -> unreadable.put(file, why));
        }
        if (processes.machines().size() > 1) {
            Stream.concat(Stream.of(first), unreadable.values().stream())
                    .filter(IndexUpkeep::isOfAnotherFormat)
                    .findFirst()
                    .ifPresent(IndexUpkeep::refuse);
        }
        try {
            shared.replace(unreadable.keySet());
        } catch (DamagedFileException e) {
            LOG.warn("{} The store has it so as well.", e.getMessage());
        }
    }

    private static boolean isOfAnotherFormat(IOException why) {
        return why instanceof DamagedFileException damaged && damaged.isOfAnotherFormat();
    }

    /** Taking such files out of the records would take them from the machines that can read them. */
    private static void refuse(IOException why) {
        throw new CannotStartException(
                why.getMessage()
                        + " Another version of the program wrote it, and other machines are running. Stop all machines, start one with this version, which indexes all repositories anew, and then the others.");
    }

    /** Why a file cannot be read; empty if it can. */
    private static Optional<IOException> whyUnreadable(Path file) {
        try {
            IndexFiles.open(file);
            return Optional.empty();
        } catch (IOException e) {
            return Optional.of(e);
        }
    }

    private static Optional<String> unreadable(Path file) {
        return whyUnreadable(file).map(IOException::getMessage);
    }

    /** Takes files out of the records that are gone or damaged, so that what they held is indexed anew. */
    private List<Long> forgetDamaged() {
        List<Long> changed = new ArrayList<>();
        news.tell(News.Kind.SEGMENTS, 0);
        for (SegmentRecord segment : segments.findAll()) {
            unreadable(folder.resolve(segment.file())).ifPresent(why -> {
                LOG.warn("{} Its repositories will be indexed anew.", why);
                segments.delete(segment);
            });
        }
        for (HistoryRecord history : histories.findAll()) {
            unreadable(folder.resolve(history.file())).ifPresent(why -> {
                LOG.warn("{} Its commits will be read anew.", why);
                forget(history);
                changed.add(history.repositoryId());
            });
        }
        for (RepositoryRecord repository : repositories.findAll()) {
            boolean any = repository.branches().removeIf(branch -> {
                Optional<String> why = unreadable(folder.resolve(branch.snapshotFile()));
                why.ifPresent(reason ->
                        LOG.warn("{} Branch {} of {} will be indexed anew.", reason, branch.name(), repository.name()));
                return why.isPresent();
            });
            if (any) {
                changed.add(repository.id());
            }
        }
        return changed;
    }

    private void forget(HistoryRecord history) {
        repositories
                .findToChange(history.repositoryId())
                .ifPresent(repository -> repository.history(repository.history().lost()));
        histories.delete(history);
    }

    /** Deletes files that no record names and that nobody is writing: what jobs of processes that have ended left behind. */
    void deleteStrays() throws IOException {
        List<Path> there; // before the records are read, or what is recorded meanwhile would seem to be one
        try (Stream<Path> files = Files.list(folder)) {
            there = files.toList();
        }
        Set<Long> living = processes.living();
        Set<Path> live = recordedNow().stream().map(folder::resolve).collect(Collectors.toSet());
        for (Path file : there) {
            boolean isBeingWritten =
                    NewFiles.ownerOf(file).filter(living::contains).isPresent();
            if (!live.contains(file) && !isBeingWritten && Files.deleteIfExists(file)) {
                LOG.info("Removed {}, which nothing refers to any more", file.getFileName());
            }
        }
    }

    /** The same, in a transaction of its own. */
    Set<String> recordedNow() {
        return transaction.execute(_ -> recorded());
    }

    /** Names of all files that the records name, whether a view has them now or not. */
    private Set<String> recorded() {
        Set<String> names = new HashSet<>(segments.files());
        names.addAll(histories.files());
        names.addAll(repositories.snapshotFiles());
        return names;
    }

    /** Mirrors of repositories that were removed while something was at work on them. */
    private void deleteMirrorsOfNobody() throws IOException {
        if (!Files.isDirectory(mirrors)) {
            return;
        }
        Set<String> wanted = new HashSet<>();
        repositories.ids().forEach(id -> wanted.add(id + ".git"));
        Set<Long> held = claims.held(Claims.Kind.MIRROR);
        held.forEach(id -> wanted.addAll(List.of(id + ".git", id + ".git.new")));
        try (Stream<Path> all = Files.list(mirrors)) {
            for (Path mirror : all.toList()) {
                if (!wanted.contains(mirror.getFileName().toString())) {
                    LOG.info("Removing the mirror {} of a repository that was removed", mirror.getFileName());
                    MirrorFolder.delete(mirror);
                }
            }
        }
    }

    /** Deletes what an ingest wrote if recording it has failed; if nobody can say whether it has, the next start does. */
    void deleteUnlessRecorded(Ingest.Ingested ingested) {
        deleteUnlessRecorded(ingested.written());
    }

    void deleteUnlessRecorded(List<Path> files) {
        try {
            Set<String> recorded = recordedNow();
            for (Path file : files) {
                if (!recorded.contains(file.getFileName().toString())) {
                    Files.deleteIfExists(file);
                }
            }
        } catch (IOException | RuntimeException e) {
            LOG.info("Files of a job that failed stay until the next start: {}", e.getMessage());
        }
    }

    /**
     * Takes segments that no branch uses any more out of the index. Only while nothing is being ingested, which
     * counts on the blobs that it knows.
     */
    public void dropUnused() throws IOException {
        View view = current.acquire();
        List<String> unused;
        try {
            unused = view.segments().stream()
                    .filter(segment -> !view.isUsed(segment))
                    .map(segment -> segment.file().getFileName().toString())
                    .toList();
        } finally {
            view.release();
        }
        if (!unused.isEmpty()) {
            transaction.executeWithoutResult(_ -> {
                segments.deleteNamed(unused);
                news.tell(News.Kind.SEGMENTS, 0);
            });
            publisher.publishSegments();
        }
    }

    /**
     * Makes one segment of several, if it is time.
     *
     * @param keepsAll whether blobs stay that no branch refers to: somebody who is ingesting may count on them
     * @return whether anything changed here; then there may be more to do
     */
    public boolean mergeSome(long largest, boolean keepsAll) throws IOException {
        View view = current.acquire();
        try {
            SegmentMerge.Wanted wanted = wanted(view, keepsAll);
            List<SegmentReader> due = SegmentMerge.due(
                    view.segments().stream().filter(view::isUsed).toList(), wanted, largest);
            if (due.isEmpty()) {
                return false;
            }
            boolean replaced = replace(due, wanted, SegmentMerge.Languages.SAME);
            publisher.publishSegments();
            return replaced;
        } finally {
            view.release();
        }
    }

    private static SegmentMerge.Wanted wanted(View view, boolean keepsAll) {
        return (segment, blob) -> keepsAll || view.placeCount(segment, blob) > 0;
    }

    /** How many segments were written by an earlier version of the analysis. */
    long outdatedSegments() {
        View view = current.acquire();
        try {
            return view.segments().stream()
                    .filter(segment -> segment.about().isOutdated())
                    .count();
        } finally {
            view.release();
        }
    }

    /** Writes one of them anew, if there are any. @param keepsAll as with {@link #mergeSome} */
    void renewOne(boolean keepsAll) throws IOException {
        View view = current.acquire();
        try {
            Optional<SegmentReader> outdated = view.segments().stream()
                    .filter(segment -> segment.about().isOutdated())
                    .findFirst();
            if (outdated.isPresent()) {
                replace(List.of(outdated.get()), wanted(view, keepsAll), view::language);
                publisher.publishSegments();
            }
        } finally {
            view.release();
        }
    }

    /**
     * Writes segments anew that hold blobs which no branch refers to, without those. Only while nothing is being ingested,
     * which counts on the blobs that it knows.
     */
    void leaveBehindUnwanted() throws IOException {
        while (!leaveBehindUnwantedNow()) {
            publisher.publishSegments(); // another process has merged some meanwhile
        }
    }

    /** @return whether all that were due could be replaced */
    private boolean leaveBehindUnwantedNow() throws IOException {
        boolean isDone = true;
        View view = current.acquire();
        try {
            SegmentMerge.Wanted wanted = wanted(view, false);
            for (SegmentReader segment : view.segments()) {
                boolean isWhole =
                        IntStream.range(0, segment.blobCount()).allMatch(blob -> wanted.isWanted(segment, blob));
                if (!isWhole) {
                    isDone &= replace(List.of(segment), wanted, SegmentMerge.Languages.SAME);
                }
            }
        } finally {
            view.release();
        }
        publisher.publishSegments();
        return isDone;
    }

    /** Records one segment in the place of several. @return whether they were all there still */
    private boolean replace(List<SegmentReader> several, SegmentMerge.Wanted wanted, SegmentMerge.Languages languages)
            throws IOException {
        Path merged = processes.newFiles().next("segment");
        boolean any = SegmentMerge.write(several, wanted, languages, merged);
        try {
            shared.keep(any ? List.of(merged) : List.of());
            boolean replaced = Boolean.TRUE.equals(transaction.execute(status -> {
                int gone = segments.deleteNamed(several.stream()
                        .map(segment -> segment.file().getFileName().toString())
                        .toList());
                if (gone < several.size()) {
                    status.setRollbackOnly();
                    return false;
                }
                if (any) {
                    segments.save(new SegmentRecord(
                            merged.getFileName().toString(), merged.toFile().length()));
                }
                news.tell(News.Kind.SEGMENTS, 0);
                return true;
            }));
            if (!replaced) {
                Files.deleteIfExists(merged);
            }
            return replaced;
        } catch (RuntimeException e) {
            deleteUnlessRecorded(List.of(merged));
            throw e;
        }
    }

    /**
     * What a check of all files found.
     *
     * @param damaged names of files that are not as they were written; they are out of the index now
     */
    public record Check(int files, long bytes, List<String> damaged) {}

    /**
     * Reads all files of the current view and compares them with their checksums; takes damaged ones out of the index.
     */
    public Check verify() throws IOException {
        View view = current.acquire();
        try {
            long bytes = 0;
            Set<String> damaged = new TreeSet<>();
            for (SegmentReader segment : view.segments()) {
                bytes += segment.size();
                check(segment.file(), segment::verify, damaged);
            }
            for (int branchNumber = 0; branchNumber < view.branches().size(); branchNumber++) {
                check(view.snapshot(branchNumber).file(), view.snapshot(branchNumber)::verify, damaged);
            }
            List<HistoryReader> pasts = view.branches().stream()
                    .map(Branch::repository)
                    .distinct()
                    .flatMap(repository -> view.past(repository).graph().files().stream())
                    .toList();
            for (HistoryReader history : pasts) {
                bytes += history.size();
                check(history.file(), history::verify, damaged);
            }
            if (!damaged.isEmpty()) {
                changes.changeSome(() -> {
                    segments.deleteNamed(damaged);
                    news.tell(News.Kind.SEGMENTS, 0);
                    List<HistoryRecord> pastsOfThem = histories.findAllById(damaged);
                    pastsOfThem.forEach(this::forget);
                    return Stream.concat(
                                    pastsOfThem.stream().map(HistoryRecord::repositoryId),
                                    repositories.findAll().stream()
                                            .filter(repository -> repository
                                                    .branches()
                                                    .removeIf(branch -> damaged.contains(branch.snapshotFile())))
                                            .map(RepositoryRecord::id))
                            .toList();
                });
                publisher.publish();
            }
            return new Check(
                    view.segments().size() + view.branches().size() + pasts.size(), bytes, List.copyOf(damaged));
        } finally {
            view.release();
        }
    }

    /** Names of files of the current view that are gone, or not as long as they were. */
    List<String> cut() {
        View view = current.acquire();
        try {
            Set<String> cut = new TreeSet<>();
            view.segments().stream()
                    .filter(segment -> !segment.isThere())
                    .forEach(segment -> cut.add(segment.file().getFileName().toString()));
            for (int branchNumber = 0; branchNumber < view.branches().size(); branchNumber++) {
                SnapshotReader snapshot = view.snapshot(branchNumber);
                if (!snapshot.isThere()) {
                    cut.add(snapshot.file().getFileName().toString());
                }
                view.past(view.branch(branchNumber).repository()).graph().files().stream()
                        .filter(history -> !history.isThere())
                        .forEach(history -> cut.add(history.file().getFileName().toString()));
            }
            return List.copyOf(cut);
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

    /** Names of repositories of which something is indexed for another group, or by an earlier version of the analysis. */
    Set<String> notAsWanted() {
        View view = current.acquire();
        try {
            Set<String> names = view.outdated().stream().map(Branch::repository).collect(Collectors.toSet());
            boolean hasGroups = groups.areSeveral()
                    || IntStream.range(0, view.branches().size())
                            .anyMatch(branch -> !group(view, branch).isEmpty());
            for (int branch = 0; hasGroups && branch < view.branches().size(); branch++) {
                String name = view.branch(branch).repository();
                Optional<String> is = Optional.of(group(view, branch));
                if (catalogue
                        .find(name)
                        .filter(repository -> !groups.of(repository).equals(is))
                        .isPresent()) {
                    names.add(name);
                }
            }
            return names;
        } finally {
            view.release();
        }
    }

    private static String group(View view, int branch) {
        return view.snapshot(branch).about().group();
    }

    /** Whether what is indexed of a branch was written by this version of the analysis, for a group. */
    boolean isAsWanted(String repository, String branch, String group) {
        View view = current.acquire();
        try {
            return view.branchNumber(repository, branch)
                    .map(view::snapshot)
                    .filter(snapshot -> !snapshot.about().isOutdated()
                            && snapshot.about().group().equals(group))
                    .isPresent();
        } finally {
            view.release();
        }
    }

    /** Branches whose files are not all in the index. */
    public List<Branch> incomplete() {
        View view = current.acquire();
        try {
            return ViewBuilder.incomplete(view);
        } finally {
            view.release();
        }
    }
}
