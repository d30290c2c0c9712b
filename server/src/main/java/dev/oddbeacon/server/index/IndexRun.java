package dev.oddbeacon.server.index;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.ingest.TreeTooLargeException;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.Credential;
import dev.oddbeacon.git.Mirror;
import dev.oddbeacon.git.MirrorFolder;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.git.MovedException;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Checked;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.index.Targets.Target;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.processes.StruckOffException;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.ChangeRecord;
import dev.oddbeacon.server.records.ChangeRecords;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecord;
import dev.oddbeacon.server.records.SegmentRecords;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.TransientDataAccessResourceException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * One job: fetch, ingest each wanted branch that has a new commit, record, publish. Files are complete and synced
 * before the records name them, so that whatever the moment of a kill, the records describe an index that is whole.
 */
@Component
public class IndexRun {
    private static final Logger LOG = LoggerFactory.getLogger(IndexRun.class);
    private static final int MOST_COUNTED = 10_000; // commits that a branch may be behind
    private static final long LEAST_IN_PARTS = 24L << 20; // of new text: less is read within seconds
    private static final Duration BETWEEN_PARTS = Duration.ofSeconds(5);
    private static final int MOST_TIMES = 3; // that an ingest is repeated
    private static final int THREADS = Math.max(1, Runtime.getRuntime().availableProcessors());

    private final Settings settings;
    private final Credential.Store credentials;
    private final RepositoryRecords repositories;
    private final SegmentRecords segments;
    private final HistoryRecords histories;
    private final JobRecords jobs;
    private final ChangeRecords log;
    private final TransactionTemplate transaction;
    private final Catalogue catalogue;
    private final JobReports reports;
    private final Processes processes;
    private final News news;
    private final Claims claims;
    private final RepositoryChanges changes;
    private final Groups groups;
    private final CurrentView current;
    private final Mirrors mirrors;
    private final SegmentOrder order;
    private final Publisher publisher;
    private final IndexUpkeep upkeep;
    private final HistoryJobs history;
    private final SharedFiles shared;
    /** Few ingests at a time, for the sake of memory; a large one holds up no small ones, only other large ones. */
    private final Semaphore small = new Semaphore(2);

    private final Semaphore large = new Semaphore(1);
    private final Set<Long> atWork = ConcurrentHashMap.newKeySet(); // repositories
    private final Set<Long> removed = ConcurrentHashMap.newKeySet(); // of them; their jobs end soon
    private volatile boolean stopped;

    IndexRun(
            Settings settings,
            Credential.Store credentials,
            RepositoryRecords repositories,
            SegmentRecords segments,
            HistoryRecords histories,
            JobRecords jobs,
            ChangeRecords log,
            TransactionTemplate transaction,
            Catalogue catalogue,
            JobReports reports,
            Processes processes,
            News news,
            Claims claims,
            RepositoryChanges changes,
            Groups groups,
            CurrentView current,
            Mirrors mirrors,
            SegmentOrder order,
            Publisher publisher,
            IndexUpkeep upkeep,
            HistoryJobs history,
            SharedFiles shared) {
        this.settings = settings;
        this.credentials = credentials;
        this.repositories = repositories;
        this.segments = segments;
        this.histories = histories;
        this.jobs = jobs;
        this.log = log;
        this.transaction = transaction;
        this.catalogue = catalogue;
        this.reports = reports;
        this.processes = processes;
        this.news = news;
        this.claims = claims;
        this.changes = changes;
        this.groups = groups;
        this.current = current;
        this.mirrors = mirrors;
        this.order = order;
        this.publisher = publisher;
        this.upkeep = upkeep;
        this.history = history;
        this.shared = shared;
    }

    /**
     * Does a job.
     *
     * @throws CancellationException if the service stops: the job is not done
     * @throws DataAccessException if the records cannot be reached: neither is it
     * @throws NoRoomException if the disk is full
     */
    void run(JobRecord job) {
        long id = job.repositoryId();
        boolean isBegun = alone(id, () -> {
            changes.tell(id);
            Optional<RepositoryRecord> record = transaction.execute(_ -> repositories.findById(id));
            if (record.isPresent()) { // else it was removed meanwhile
                run(job, record.get());
            }
        });
        if (!isBegun) { // another process still puts it in order
            throw new TransientDataAccessResourceException("the mirror of repository " + id + " is being used");
        }
    }

    /** Does something with a repository that nobody else is at work on. @return whether it was */
    private boolean alone(long id, Runnable work) {
        if (!atWork.add(id)) {
            return false;
        }
        boolean isClaimed = false;
        try {
            isClaimed = claims.take(Claims.Kind.MIRROR, id);
            if (isClaimed) {
                work.run();
            }
            return isClaimed;
        } finally {
            if (isClaimed) {
                claims.release(Claims.Kind.MIRROR, id);
            }
            atWork.remove(id);
            if (removed.remove(id)) {
                deleteMirror(id);
            }
        }
    }

    /**
     * Ingests what is indexed of a repository once more, without fetching, for its group and by this version of the
     * analysis.
     *
     * @return whether it could be done; if not, it is left as it is
     */
    boolean renew(long repositoryId) {
        boolean[] isDone = {false};
        alone(repositoryId, () -> {
            Optional<RepositoryRecord> record = transaction.execute(_ -> repositories.findById(repositoryId));
            try {
                if (record.isPresent() && mirrors.has(repositoryId)) {
                    renew(record.get());
                    isDone[0] = true;
                }
            } catch (IOException | RepositoryProblemException e) {
                LOG.info("{} is not written anew: {}", record.get().name(), e.getMessage());
            }
        });
        return isDone[0];
    }

    /**
     * Fetches what another machine has indexed of a repository, as far as the mirror here lacks it.
     *
     * @param anew whether the mirror must hold nothing else
     * @return whether it lacks nothing now; if not, it is to be tried again
     */
    boolean catchUp(long repositoryId, boolean anew) {
        boolean[] isDone = {false};
        alone(repositoryId, () -> {
            Optional<RepositoryRecord> record = transaction.execute(_ -> repositories.findById(repositoryId));
            isDone[0] = record.isEmpty() || catchUp(record.get(), anew);
        });
        return isDone[0];
    }

    private boolean catchUp(RepositoryRecord record, boolean anew) {
        if (!anew && mirrors.holdsIndexed(record)) {
            return true;
        }
        Path folder = settings.mirror(record.id());
        Path fresh = folder.resolveSibling(folder.getFileName() + ".new");
        try {
            Files.createDirectories(folder.getParent());
            MirrorFolder.delete(fresh);
            new Mirror(anew ? fresh : folder, record.location(), settings.transport(credentials))
                    .fetch((_, _, _) -> !ending(record.id()).getAsBoolean());
            if (anew) {
                mirrors.replace(record.id(), fresh);
            }
            return true;
        } catch (RepositoryProblemException | IOException e) {
            LOG.info("{} is not fetched to this machine yet: {}", record.name(), e.getMessage());
            return false;
        }
    }

    private void renew(RepositoryRecord record) throws IOException, RepositoryProblemException {
        try (MirrorReader reader = new MirrorReader(
                settings.mirror(record.id()), settings.largestFile().toBytes())) {
            List<Target> indexed = record.branches().stream()
                    .map(branch -> new Target(branch.name(), branch.commitId(), branch.searchedByDefault()))
                    .toList();
            String group = group(record, reader, indexed);
            for (Target target : indexed) {
                ingest(record, reader, target, group, ending(record.id()));
            }
        }
    }

    private void run(JobRecord job, RepositoryRecord record) {
        String name = record.name();
        try {
            index(job, record);
        } catch (MovedException e) {
            LOG.info("{}: {}", name, e.getMessage());
            if (record.roster().isEmpty()) {
                follow(job, record, e.location());
            } else { // which would say the old address again
                finish(job, State.FAILED, Optional.of(e.getMessage() + " Change it in the list of the roster."));
            }
        } catch (RepositoryProblemException e) {
            LOG.info("{}: {}", name, e.getMessage());
            finish(job, State.FAILED, Optional.of(e.getMessage()));
        } catch (TreeTooLargeException e) {
            LOG.info("{}: {}", name, Visible.escaped(e.getMessage()));
            finish(job, State.FAILED, Optional.of(Visible.escaped(e.getMessage())));
        } catch (CancellationException e) {
            if (isEnding()) {
                throw e;
            }
            if (!removed.contains(record.id())) {
                finish(
                        job,
                        State.FAILED,
                        Optional.of("Fetching and indexing took longer than "
                                + settings.jobTime().toMinutes()
                                + " minutes and was given up. oddbeacon.job-time can allow more."));
            }
        } catch (StruckOffException e) {
            throw new CancellationException(e.getMessage());
        } catch (IOException | UncheckedIOException e) {
            throwIfItIsNotTheRepositorys(e);
            LOG.error("Indexing {} failed", name, e);
            finish(job, State.FAILED, Optional.of("Indexing failed: " + Visible.escaped(e.getMessage())));
        } catch (RuntimeException e) {
            throwIfItIsNotTheRepositorys(e);
            LOG.error("Indexing {} failed", name, e);
            finish(job, State.FAILED, Optional.of("Indexing failed unexpectedly. The log of the service tells more."));
        }
    }

    /** Fetches from where a repository has moved to from now on, in a job of its own, if it answers there. */
    private void follow(JobRecord job, RepositoryRecord record, String location) {
        try {
            new Mirror(settings.mirror(record.id()), location, settings.transport(credentials))
                    .listed(ending(record.id()));
        } catch (RepositoryProblemException e) {
            finish(job, State.FAILED, Optional.of(e.getMessage()));
            return;
        }
        changes.change(record.id(), fresh -> {
            fresh.moved(location);
            jobs.deleteAllByIdInBatch(List.of(job.id()));
            jobs.save(new JobRecord(record.id(), job.host(), job.purges()));
            log.save(new ChangeRecord(
                    Optional.empty(),
                    Optional.empty(),
                    "",
                    "repository-moved",
                    record.name() + ": from " + record.location() + " to " + location));
        });
    }

    /** What happens because the service stops, records or objects cannot be reached or the disk is full, is no failure. */
    private void throwIfItIsNotTheRepositorys(Exception e) {
        if (isEnding()) {
            throw new CancellationException("the process stops, or others do its work");
        }
        if (Outages.isOutage(e)) {
            throw (RuntimeException) e;
        }
        if (Disk.isFull(e)) {
            throw new NoRoomException();
        }
    }

    /** Whether no job may go on. */
    private boolean isEnding() {
        return stopped || processes.isStruckOff();
    }

    /** Whether a job must give up: the service stops, the repository was removed, or it has taken too long. */
    private BooleanSupplier ending(long repositoryId) {
        long deadline = System.nanoTime() + settings.jobTime().toNanos();
        return () -> isEnding() || removed.contains(repositoryId) || System.nanoTime() > deadline;
    }

    private void index(JobRecord job, RepositoryRecord record) throws RepositoryProblemException, IOException {
        Path folder = settings.mirror(record.id());
        Files.createDirectories(folder.getParent());
        Mirror mirror = new Mirror(folder, record.location(), settings.transport(credentials));
        BooleanSupplier ending = ending(record.id());
        if (job.purges()) {
            beginAnew(record, ending);
        }
        Mirror.Refs refs = fetch(record, mirror, ending);
        List<String> problems = new ArrayList<>(refs.problems());
        boolean hasTargets;
        try (MirrorReader reader =
                new MirrorReader(folder, settings.largestFile().toBytes())) {
            Targets wanted = Targets.of(
                    record.wantedBranches(), refs, ref -> reader.commit(ref).map(MirrorReader.Revision::committed));
            problems.addAll(wanted.problems());
            hasTargets = !wanted.targets().isEmpty();
            reports.found(
                    record.id(),
                    JobReports.Finding.Fetched.of(
                            refs.digest(), newest(reader, wanted), behind(record, reader, wanted)));
            if (hasTargets) {
                String group = group(record, reader, wanted.targets());
                for (Target target : wanted.targets()) {
                    ingest(record, reader, target, group, ending);
                }
            }
            forgetOthers(record, wanted);
        }
        if (job.purges()) {
            order.leaveNothingBehind();
            transaction.executeWithoutResult(_ -> news.tell(News.Kind.PURGED, record.id())); // views of meanwhile
        }
        reports.found(record.id(), new JobReports.Finding.Indexed());
        boolean failed = !hasTargets && !problems.isEmpty();
        if (refs.head().isEmpty() && refs.refs().isEmpty()) {
            problems.add("It has no commits yet. Refresh it when it has.");
        }
        finish(
                job,
                failed ? State.FAILED : State.READY,
                problems.isEmpty() ? Optional.empty() : Optional.of(String.join(" ", problems)));
        history.request(record.id());
        keepInOrder(mirror);
    }

    /**
     * Fetches a repository into a new mirror, which takes the place of the one there was, and forgets its past. If it
     * cannot be fetched, all stays as it is.
     */
    private void beginAnew(RepositoryRecord record, BooleanSupplier ending)
            throws RepositoryProblemException, IOException {
        Path folder = settings.mirror(record.id());
        Path fresh = folder.resolveSibling(folder.getFileName() + ".new");
        MirrorFolder.delete(fresh);
        try {
            fetch(record, new Mirror(fresh, record.location(), settings.transport(credentials)), ending);
        } catch (RepositoryProblemException e) {
            MirrorFolder.delete(fresh);
            throw new RepositoryProblemException("Nothing was purged. " + e.getMessage(), e);
        }
        history.hold(record.id(), ending);
        try {
            mirrors.replace(record.id(), fresh);
            changes.change(record.id(), anew -> {
                histories.deleteByRepositoryId(record.id());
                news.tell(News.Kind.PURGED, record.id());
                anew.history(anew.history().lost());
            });
            publisher.publish(record.id());
        } finally {
            history.letGo(record.id());
        }
    }

    private Mirror.Refs fetch(RepositoryRecord record, Mirror mirror, BooleanSupplier ending)
            throws RepositoryProblemException, IOException {
        Throttle throttle = new Throttle();
        try {
            return mirror.fetch((what, done, total) -> {
                if (throttle.isDue()) {
                    reports.progress(record.id(), new Repository.Progress("fetching: " + what, done, total));
                }
                return !ending.getAsBoolean();
            });
        } catch (RepositoryProblemException e) {
            reports.found(record.id(), new JobReports.Finding.NotFetched(e.getMessage()));
            throw e;
        }
    }

    /** When the newest commit that is wanted was made; now, if there is none yet. */
    private static Instant newest(MirrorReader reader, Targets wanted) throws IOException {
        Optional<Instant> newest = Optional.empty();
        for (Target target : wanted.targets()) {
            Optional<Instant> committed = reader.commit(target.ref()).map(MirrorReader.Revision::committed);
            newest = newest.filter(so -> committed.isEmpty() || so.isAfter(committed.get()))
                    .or(() -> committed);
        }
        return newest.orElseGet(Instant::now);
    }

    /** What was fetched of the default branch, and is not indexed yet. */
    private static Checked.Behind behind(RepositoryRecord record, MirrorReader reader, Targets wanted)
            throws IOException {
        for (Target target : wanted.targets()) {
            Optional<BranchRecord> indexed = record.branch(target.name()).filter(BranchRecord::searchedByDefault);
            Optional<MirrorReader.Revision> fetched = reader.commit(target.ref());
            if (indexed.isPresent() && fetched.isPresent()) {
                String before = indexed.get().commitId();
                return before.equals(fetched.get().id())
                        ? Checked.Behind.NOT
                        : new Checked.Behind(
                                true,
                                reader.commitsBetween(before, fetched.get().id(), MOST_COUNTED));
            }
        }
        return Checked.Behind.NOT;
    }

    /** What is due after a job that is done; if it fails, the next job does it. */
    private void keepInOrder(Mirror mirror) {
        try {
            order.dropUnused();
            order.merge(() -> stopped);
            mirror.upkeep();
        } catch (IOException | RuntimeException e) {
            LOG.warn("Putting the index in order failed; the next job does it: {}", e.getMessage());
        }
    }

    /** The group of a repository; records what it is told by, when it is first asked. */
    private String group(RepositoryRecord record, MirrorReader reader, List<Target> targets) throws IOException {
        if (groups.areOfOrigins() && record.firstCommit().isEmpty()) {
            Optional<MirrorReader.Revision> any =
                    reader.commit(targets.getFirst().ref());
            if (any.isPresent()) {
                String first = reader.firstCommit(any.get().id());
                record.firstCommit(first);
                changes.change(record.id(), fresh -> fresh.firstCommit(first));
            }
        }
        return groups.of(record).orElse("");
    }

    private void ingest(
            RepositoryRecord record, MirrorReader reader, Target target, String group, BooleanSupplier ending)
            throws IOException, RepositoryProblemException {
        Optional<MirrorReader.Revision> commit = reader.commit(target.ref());
        if (commit.isEmpty()) {
            throw new RepositoryProblemException("The tag " + target.name() + " does not name a commit.");
        }
        Optional<BranchRecord> before = transaction.execute(
                _ -> repositories.findById(record.id()).flatMap(fresh -> fresh.branch(target.name())));
        if (!isIncomplete(record, target)
                && before.isPresent()
                && before.get().commitId().equals(commit.get().id())
                && before.get().unreadBytes() == 0
                && upkeep.isAsWanted(record.name(), target.name(), group)
                && before.get().searchedByDefault() == target.isDefault()) {
            return;
        }
        boolean isFirst = before.isEmpty() || before.get().unreadBytes() > 0;
        for (int times = 1; times == 1 || times <= MOST_TIMES && isIncomplete(record, target); times++) {
            try (SegmentOrder.Counting _ = order.countOnBlobs()) {
                View known = current.acquire();
                try {
                    ingest(record, reader, target, commit.get(), group, known, isFirst, ending);
                } finally {
                    known.release();
                }
            }
        }
    }

    /** Whether files of a branch are not in the index: what was counted on may have been damaged, or left behind by another process. */
    private boolean isIncomplete(RepositoryRecord record, Target target) {
        return upkeep.incomplete().stream()
                .anyMatch(branch -> branch.repository().equals(record.name())
                        && branch.name().equals(target.name()));
    }

    /** @param isFirst whether nothing of the branch is searched yet, or only a part */
    private void ingest(
            RepositoryRecord record,
            MirrorReader reader,
            Target target,
            MirrorReader.Revision commit,
            String group,
            View known,
            boolean isFirst,
            BooleanSupplier ending)
            throws IOException {
        Ingest ingest = new Ingest(processes.newFiles(), settings.largestFile().toBytes(), THREADS, group);
        Ingest.Parts parts = part -> publish(record, target, commit, part);
        parts.take(ingestInTurn(
                record,
                ingest,
                reader.tree(commit.id()),
                known,
                ending,
                isFirst ? Optional.of(new Ingest.InParts(parts, LEAST_IN_PARTS, BETWEEN_PARTS)) : Optional.empty()));
    }

    /** Records what was ingested, all of it or a part, and has it searched. */
    private void publish(RepositoryRecord record, Target target, MirrorReader.Revision commit, Ingest.Ingested done)
            throws IOException {
        try {
            shared.keep(done.written());
            changes.change(record.id(), fresh -> record(fresh, target, commit, done));
        } catch (RuntimeException e) {
            upkeep.deleteUnlessRecorded(done);
            throw e;
        }
        publisher.publish(record.id());
    }

    private Ingest.Ingested ingestInTurn(
            RepositoryRecord record,
            Ingest ingest,
            SourceTree tree,
            View known,
            BooleanSupplier ending,
            Optional<Ingest.InParts> inParts)
            throws IOException {
        Semaphore held = small;
        small.acquireUninterruptibly();
        try {
            Ingest.Plan plan = ingest.plan(tree, known);
            if (plan.isLarge()) {
                small.release();
                held = large;
                large.acquireUninterruptibly();
            }
            IngestProgress progress = new IngestProgress();
            Throttle throttle = new Throttle();
            return ingest.run(
                    plan,
                    progress,
                    () -> {
                        if (throttle.isDue()) {
                            reports.progress(
                                    record.id(),
                                    new Repository.Progress("indexing", progress.doneBytes(), progress.totalBytes()));
                        }
                        return ending.getAsBoolean();
                    },
                    inParts);
        } finally {
            held.release();
        }
    }

    private void record(RepositoryRecord record, Target target, MirrorReader.Revision commit, Ingest.Ingested done) {
        BranchRecord branch = record.branch(target.name()).orElseGet(() -> {
            BranchRecord added = new BranchRecord(record, target.name());
            record.branches().add(added);
            return added;
        });
        branch.indexed(commit.id(), commit.committed(), done);
        branch.searchedByDefault(target.isDefault());
        done.segments()
                .forEach(file -> segments.save(new SegmentRecord(
                        file.getFileName().toString(), file.toFile().length())));
    }

    /** Branches that are not wanted, or not there, any more. */
    private void forgetOthers(RepositoryRecord record, Targets wanted) throws IOException {
        Set<String> names = Set.copyOf(wanted.names());
        boolean hasOthers = catalogue.find(record.name()).stream()
                .flatMap(repository -> repository.branches().stream())
                .anyMatch(branch -> !names.contains(branch.name()));
        if (hasOthers) {
            changes.change(record.id(), fresh -> fresh.branches().removeIf(branch -> !names.contains(branch.name())));
            publisher.publish(record.id());
        }
    }

    private void finish(JobRecord job, State state, Optional<String> problem) {
        long mirrorBytes = MirrorFolder.bytes(settings.mirror(job.repositoryId()));
        changes.change(job.repositoryId(), repository -> {
            jobs.deleteAllByIdInBatch(List.of(job.id())); // a removal may have done it
            repository.state(state, problem);
            repository.mirrorBytes(mirrorBytes);
        });
    }

    /** Repositories whose job has not ended yet, though its result may be recorded: the mirror is being used. */
    Set<Long> atWork() {
        return Set.copyOf(atWork);
    }

    /** Deletes what is left of a repository that was removed; a job that is at work on it ends, and does it then. */
    void removed(long repositoryId) throws IOException {
        removedElsewhere(repositoryId);
        order.dropUnused();
    }

    /** The same for one that another process has removed: what is at work on it here ends. */
    void removedElsewhere(long repositoryId) {
        removed.add(repositoryId);
        if (!atWork.contains(repositoryId) && removed.remove(repositoryId)) {
            deleteMirror(repositoryId);
        }
    }

    /** Deletes the mirror of a repository that was removed, unless another process is at work on it, which does it then. */
    private void deleteMirror(long repositoryId) {
        try {
            if (!claims.take(Claims.Kind.MIRROR, repositoryId)) {
                return;
            }
            MirrorFolder.delete(settings.mirror(repositoryId));
            claims.release(Claims.Kind.MIRROR, repositoryId);
        } catch (IOException | DataAccessException e) {
            LOG.warn("The mirror {} could not be deleted; the next start does it: {}", repositoryId, e.getMessage());
        }
    }

    /** Jobs at work give up at the next file. */
    void stop() {
        stopped = true;
    }

    /** Lets something happen a few times a second. */
    private static final class Throttle {
        private static final long PAUSE_NANOS = 200_000_000;
        private long last = System.nanoTime() - PAUSE_NANOS;

        synchronized boolean isDue() {
            long now = System.nanoTime();
            if (now - last < PAUSE_NANOS) {
                return false;
            }
            last = now;
            return true;
        }
    }
}
