package dev.oddbeacon.git;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitSource;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.eclipse.jgit.diff.DiffEntry;
import org.eclipse.jgit.diff.RenameDetector;
import org.eclipse.jgit.errors.MissingObjectException;
import org.eclipse.jgit.lib.ObjectReader;
import org.eclipse.jgit.lib.PersonIdent;
import org.eclipse.jgit.lib.Repository;
import org.eclipse.jgit.revwalk.RevCommit;
import org.eclipse.jgit.revwalk.RevFlag;
import org.eclipse.jgit.revwalk.RevWalk;
import org.eclipse.jgit.treewalk.EmptyTreeIterator;
import org.eclipse.jgit.treewalk.TreeWalk;
import org.eclipse.jgit.treewalk.filter.AndTreeFilter;
import org.eclipse.jgit.treewalk.filter.TreeFilter;

/** Reads the past of a mirror. For one thread. */
final class MirrorHistory implements CommitSource {
    /** Files are taken for renamed from this similarity on, in percent, as Git does it. */
    private static final int RENAME_SCORE = 50;

    private static final int RENAME_LIMIT = 1_000;
    private static final long EARLIEST = Instant.parse("1000-01-01T00:00:00Z").getEpochSecond();
    private static final long LATEST = Instant.parse("9999-12-31T23:59:59Z").getEpochSecond();
    private static final int LONGEST_MESSAGE = 256 << 10;

    private final Repository repository;
    private final SourceTree tree; // of no commit in particular: its blobs are those of the repository
    private final ObjectReader reader;
    private final RevWalk walk;

    MirrorHistory(Repository repository, SourceTree tree) {
        this.repository = repository;
        this.tree = tree;
        this.reader = withAllParents(repository.newObjectReader());
        this.walk = new RevWalk(reader);
    }

    /** Tells the parents of commits where the past is cut as well: that they are missing is to be seen. */
    private static ObjectReader withAllParents(ObjectReader reader) {
        return new ObjectReader.Filter() {
            @Override
            protected ObjectReader delegate() {
                return reader;
            }

            @Override
            public Set<org.eclipse.jgit.lib.ObjectId> getShallowCommits() {
                return Set.of();
            }
        };
    }

    @Override
    public void commits(
            Collection<ObjectId> tips,
            int most,
            boolean knownIsWhole,
            Predicate<ObjectId> known,
            Consumer<ObjectId> sink)
            throws IOException {
        try (RevWalk all = new RevWalk(reader)) {
            all.setRetainBody(false);
            RevFlag seen = all.newFlag("seen");
            PriorityQueue<RevCommit> open = new PriorityQueue<>(
                    Comparator.comparingInt(RevCommit::getCommitTime).reversed());
            for (ObjectId tip : tips) {
                take(all.parseCommit(jgitId(tip)), seen, open);
            }
            int told = 0;
            while (!open.isEmpty() && told < most) {
                RevCommit commit = open.remove();
                ObjectId id = MirrorReader.id(commit);
                told++;
                boolean isKnown = known.test(id);
                if (!isKnown) {
                    sink.accept(id);
                }
                for (int i = 0; i < commit.getParentCount() && !(isKnown && knownIsWhole); i++) {
                    RevCommit parent = commit.getParent(i);
                    if (!parent.has(seen) && parseIfThere(all, parent)) {
                        take(parent, seen, open);
                    }
                }
            }
        }
    }

    private static void take(RevCommit commit, RevFlag seen, PriorityQueue<RevCommit> open) {
        if (!commit.has(seen)) {
            commit.add(seen);
            open.add(commit);
        }
    }

    private static boolean parseIfThere(RevWalk commits, RevCommit commit) throws IOException {
        try {
            commits.parseHeaders(commit);
            return true;
        } catch (MissingObjectException e) {
            return false; // a shallow repository
        }
    }

    @Override
    public Commit commit(ObjectId id) throws IOException {
        RevCommit commit = parse(jgitId(id));
        List<ObjectId> parents = new ArrayList<>();
        for (RevCommit parent : commit.getParents()) {
            parents.add(MirrorReader.id(parent));
        }
        PersonIdent author = commit.getAuthorIdent();
        PersonIdent committer = commit.getCommitterIdent();
        return new Commit(
                id, parents, person(author), moment(author), person(committer), moment(committer), message(commit));
    }

    private RevCommit parse(org.eclipse.jgit.lib.ObjectId id) throws IOException {
        RevCommit commit = walk.lookupCommit(id);
        walk.parseBody(commit);
        return commit;
    }

    private static String message(RevCommit commit) {
        String message = wholeMessage(commit);
        return message.length() <= LONGEST_MESSAGE
                ? message
                : message.substring(0, LONGEST_MESSAGE) + "\n[The message has " + message.length()
                        + " characters; the rest is left out.]";
    }

    private static String wholeMessage(RevCommit commit) {
        try {
            return commit.getFullMessage();
        } catch (IllegalArgumentException e) { // it names an encoding that nobody knows
            String raw = new String(commit.getRawBuffer(), java.nio.charset.StandardCharsets.ISO_8859_1);
            int blank = raw.indexOf("\n\n");
            return blank < 0 ? raw : raw.substring(blank + 2);
        }
    }

    private static Commit.Person person(PersonIdent ident) {
        return ident == null
                ? new Commit.Person("", "")
                : new Commit.Person(clean(ident.getName()), clean(ident.getEmailAddress()));
    }

    private static String clean(String text) {
        return text.replace('\n', ' ').replace('\0', ' ').strip();
    }

    /** Dates that no calendar of ours has become the nearest that one has. */
    private static Commit.Moment moment(PersonIdent ident) {
        if (ident == null) {
            return new Commit.Moment(0, 0);
        }
        long seconds = Math.clamp(ident.getWhenAsInstant().getEpochSecond(), EARLIEST, LATEST);
        try {
            return new Commit.Moment(seconds, ident.getZoneOffset().getTotalSeconds() / 60);
        } catch (DateTimeException e) { // no zone is so far east
            return new Commit.Moment(seconds, 0);
        }
    }

    @Override
    public List<PathChange> changes(Commit commit) throws IOException {
        return commit.parents().isEmpty()
                ? between(reader, repository, null, jgitId(commit.id()))
                : between(reader, repository, jgitId(commit.parents().getFirst()), jgitId(commit.id()));
    }

    /**
     * What differs between two commits, ordered by path.
     *
     * @param before null for nothing; a commit that is missing counts as nothing too
     */
    static List<PathChange> between(
            ObjectReader reader,
            Repository repository,
            org.eclipse.jgit.lib.ObjectId before,
            org.eclipse.jgit.lib.ObjectId after)
            throws IOException {
        try (RevWalk commits = new RevWalk(reader);
                TreeWalk trees = new TreeWalk(reader)) { // without attributes, whose patterns are not ours
            if (before == null || !addTree(trees, commits, before)) {
                trees.addTree(new EmptyTreeIterator());
            }
            trees.addTree(commits.parseCommit(after).getTree());
            List<DiffEntry> entries = differences(trees);
            if (entries.stream().anyMatch(entry -> entry.getChangeType() == DiffEntry.ChangeType.ADD)
                    && entries.stream().anyMatch(entry -> entry.getChangeType() == DiffEntry.ChangeType.DELETE)) {
                RenameDetector renames = new RenameDetector(repository);
                renames.setRenameScore(RENAME_SCORE);
                renames.setRenameLimit(RENAME_LIMIT);
                renames.addAll(entries);
                try {
                    entries = renames.compute(reader, null);
                } catch (MissingObjectException e) {
                    // a repository that lacks a blob: its files are told as they are
                } catch (org.eclipse.jgit.api.errors.CanceledException e) {
                    throw new IllegalStateException(e);
                }
            }
            return entries.stream()
                    .map(MirrorHistory::change)
                    .sorted(Comparator.comparing(PathChange::path))
                    .toList();
        }
    }

    /** The changed files; their number and depth are limited. */
    private static List<DiffEntry> differences(TreeWalk trees) throws IOException {
        TreeLimits limits = new TreeLimits();
        trees.setFilter(AndTreeFilter.create(TreeFilter.ANY_DIFF, new TreeFilter() {
            @Override
            public boolean include(TreeWalk walk) throws IOException {
                if (walk.isSubtree()) {
                    limits.folder(walk);
                } else {
                    limits.file(walk);
                }
                return true;
            }

            @Override
            public boolean shouldBeRecursive() {
                return true;
            }

            @Override
            public TreeFilter clone() {
                return this;
            }
        }));
        trees.setRecursive(true);
        return DiffEntry.scan(trees);
    }

    private static boolean addTree(TreeWalk trees, RevWalk commits, org.eclipse.jgit.lib.ObjectId commit)
            throws IOException {
        try {
            trees.addTree(commits.parseCommit(commit).getTree());
            return true;
        } catch (MissingObjectException e) {
            return false; // a shallow repository
        }
    }

    private static PathChange change(DiffEntry entry) {
        PathChange.Kind kind = switch (entry.getChangeType()) {
            case ADD, COPY -> PathChange.Kind.ADDED;
            case DELETE -> PathChange.Kind.DELETED;
            case RENAME -> PathChange.Kind.RENAMED;
            case MODIFY -> PathChange.Kind.MODIFIED;
        };
        String path = kind == PathChange.Kind.DELETED ? entry.getOldPath() : entry.getNewPath();
        return new PathChange(
                path,
                kind == PathChange.Kind.RENAMED ? entry.getOldPath() : path,
                kind,
                kind == PathChange.Kind.ADDED
                        ? PathChange.NOTHING
                        : MirrorReader.id(entry.getOldId().toObjectId()),
                kind == PathChange.Kind.DELETED
                        ? PathChange.NOTHING
                        : MirrorReader.id(entry.getNewId().toObjectId()),
                kind == PathChange.Kind.ADDED ? 0 : entry.getOldMode().getBits(),
                kind == PathChange.Kind.DELETED ? 0 : entry.getNewMode().getBits());
    }

    @Override
    public Blobs blobs() {
        return tree.blobs();
    }

    private static org.eclipse.jgit.lib.ObjectId jgitId(ObjectId id) {
        return org.eclipse.jgit.lib.ObjectId.fromString(id.toString());
    }

    @Override
    public void close() {
        walk.close();
        reader.close();
    }
}
