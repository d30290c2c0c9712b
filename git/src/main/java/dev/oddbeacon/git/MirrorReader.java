package dev.oddbeacon.git;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitSource;
import dev.oddbeacon.core.history.PastObjects;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.ToLongFunction;
import org.eclipse.jgit.errors.IncorrectObjectTypeException;
import org.eclipse.jgit.errors.MissingObjectException;
import org.eclipse.jgit.errors.RevisionSyntaxException;
import org.eclipse.jgit.lib.AbbreviatedObjectId;
import org.eclipse.jgit.lib.AnyObjectId;
import org.eclipse.jgit.lib.Constants;
import org.eclipse.jgit.lib.FileMode;
import org.eclipse.jgit.lib.ObjectLoader;
import org.eclipse.jgit.lib.ObjectReader;
import org.eclipse.jgit.lib.Ref;
import org.eclipse.jgit.lib.Repository;
import org.eclipse.jgit.revwalk.RevCommit;
import org.eclipse.jgit.revwalk.RevObject;
import org.eclipse.jgit.revwalk.RevWalk;
import org.eclipse.jgit.storage.file.FileRepositoryBuilder;
import org.eclipse.jgit.treewalk.TreeWalk;

/** Reads commits, trees and blobs of a mirror. Threads may share one; {@link #close} when done. */
public final class MirrorReader implements AutoCloseable {
    private static final long LARGEST_BLOB = 32L << 20;
    private static final int LONGEST_REVISION = 250; // bytes
    private static final int LARGEST_ATTRIBUTES = 1 << 20;

    private final Repository repository;
    private final long largestBlob;
    private final Runnable closed;

    public MirrorReader(Path folder) throws IOException {
        this(folder, LARGEST_BLOB);
    }

    /** @param largestBlob in bytes; larger ones are not read */
    public MirrorReader(Path folder, long largestBlob) throws IOException {
        this(folder, largestBlob, () -> {});
    }

    /** @param closed is run when it is closed */
    public MirrorReader(Path folder, long largestBlob, Runnable closed) throws IOException {
        this.largestBlob = largestBlob;
        this.closed = closed;
        repository = new FileRepositoryBuilder()
                .setGitDir(folder.toFile())
                .setMustExist(true)
                .setBare()
                .build();
    }

    /** A commit that a revision names. */
    public record Revision(String id, Instant committed) {}

    /** The commit that a revision names: a branch, a tag, an id or its unambiguous beginning, {@code main~3}. */
    public Optional<Revision> commit(String revision) throws IOException {
        if (revision.getBytes(StandardCharsets.UTF_8).length > LONGEST_REVISION) {
            return Optional.empty(); // no file of a branch can have such a name
        }
        try (RevWalk walk = new RevWalk(repository)) {
            org.eclipse.jgit.lib.ObjectId id = repository.resolve(revision + "^{commit}");
            if (id == null) {
                return Optional.empty();
            }
            RevCommit commit = walk.parseCommit(id);
            return Optional.of(new Revision(commit.name(), Instant.ofEpochSecond(commit.getCommitTime())));
        } catch (RevisionSyntaxException
                | IncorrectObjectTypeException
                | MissingObjectException
                | org.eclipse.jgit.errors.AmbiguousObjectException
                | StringIndexOutOfBoundsException e) {
            return Optional.empty();
        }
    }

    /** @throws IOException if the blob is missing, damaged or too large */
    private byte[] read(ObjectReader reader, ObjectId id) throws IOException {
        ObjectLoader loader = reader.open(jgitId(id), Constants.OBJ_BLOB);
        if (loader.getSize() > largestBlob) {
            throw new BlobTooLargeException("It has " + loader.getSize() + " bytes; at most " + largestBlob
                    + " are read. Get it from the repository itself, with git cat-file.");
        }
        return loader.getCachedBytes((int) Math.min(largestBlob, Integer.MAX_VALUE - 8));
    }

    /** The files of a commit. */
    public SourceTree tree(String commit) {
        return new CommitTree(commit);
    }

    /** The changed files between two commits, ordered by path. @param before empty for nothing */
    public List<PathChange> changes(Optional<ObjectId> before, ObjectId after) throws IOException {
        try (ObjectReader reader = repository.newObjectReader()) {
            return MirrorHistory.between(
                    reader, repository, before.map(MirrorReader::jgitId).orElse(null), jgitId(after));
        }
    }

    /** A commit, whether the index knows it or not. */
    public Commit commit(ObjectId id) throws IOException {
        try (CommitSource history = history()) {
            return history.commit(id);
        }
    }

    /**
     * How many commits one commit has that another has not.
     *
     * @param most after which counting ends
     * @return at most that many; empty if one of the two is not there
     */
    public OptionalInt commitsBetween(String before, String after, int most) throws IOException {
        try (RevWalk walk = new RevWalk(repository)) {
            walk.setRetainBody(false);
            walk.markStart(walk.parseCommit(org.eclipse.jgit.lib.ObjectId.fromString(after)));
            walk.markUninteresting(walk.parseCommit(org.eclipse.jgit.lib.ObjectId.fromString(before)));
            int count = 0;
            while (count < most && walk.next() != null) {
                count++;
            }
            return OptionalInt.of(count);
        } catch (MissingObjectException | IncorrectObjectTypeException e) {
            return OptionalInt.empty(); // a history that was rewritten, and cleaned
        }
    }

    /**
     * The commit that a branch was at, at some time: the last from first parent to first parent that was committed before.
     *
     * @return empty if it began later
     */
    public Optional<ObjectId> commitAt(ObjectId tip, Instant time) throws IOException {
        try (RevWalk walk = new RevWalk(repository)) {
            RevCommit at = walk.parseCommit(jgitId(tip));
            while (at.getCommitTime() >= time.getEpochSecond()) {
                if (at.getParentCount() == 0) {
                    return Optional.empty();
                }
                at = walk.parseCommit(at.getParent(0));
            }
            return Optional.of(ObjectId.of(at.name()));
        } catch (MissingObjectException e) {
            return Optional.empty(); // a history that was fetched in part
        }
    }

    /** The commit that a history began with, from first parent to first parent. Forks of one origin have the same. */
    public String firstCommit(String commit) throws IOException {
        try (RevWalk walk = new RevWalk(repository)) {
            walk.setRetainBody(false);
            walk.setFirstParent(true);
            walk.markStart(walk.parseCommit(org.eclipse.jgit.lib.ObjectId.fromString(commit)));
            String first = commit;
            for (RevCommit at = walk.next(); at != null; at = walk.next()) {
                if (at.getParentCount() == 0) {
                    first = at.name();
                }
            }
            return first;
        }
    }

    /** All branches and tags. */
    public List<Named> names() throws IOException {
        List<Named> names = new ArrayList<>();
        try (RevWalk walk = new RevWalk(repository)) {
            for (Ref ref : repository.getRefDatabase().getRefsByPrefix(Constants.R_HEADS, Constants.R_TAGS)) {
                org.eclipse.jgit.lib.ObjectId id =
                        repository.getRefDatabase().peel(ref).getPeeledObjectId();
                RevObject object = walk.parseAny(id == null ? ref.getObjectId() : id);
                if (object instanceof RevCommit commit) {
                    boolean isTag = ref.getName().startsWith(Constants.R_TAGS);
                    names.add(new Named(
                            ref.getName().substring((isTag ? Constants.R_TAGS : Constants.R_HEADS).length()),
                            isTag,
                            id(commit),
                            Instant.ofEpochSecond(commit.getCommitTime()),
                            commit.getShortMessage()));
                }
            }
        }
        return names;
    }

    /**
     * A branch or a tag.
     *
     * @param summary of its commit
     */
    public record Named(String name, boolean isTag, ObjectId commit, Instant committed, String summary) {}

    /** Whether a commit can be reached from another. */
    public boolean isBefore(ObjectId commit, ObjectId other) throws IOException {
        try (RevWalk walk = new RevWalk(repository)) {
            return walk.isMergedInto(walk.parseCommit(jgitId(commit)), walk.parseCommit(jgitId(other)));
        }
    }

    /** The commits whose ids begin so. */
    public List<ObjectId> beginningWith(String digits) throws IOException {
        try (ObjectReader reader = repository.newObjectReader();
                RevWalk walk = new RevWalk(reader)) {
            List<ObjectId> found = new ArrayList<>();
            for (org.eclipse.jgit.lib.ObjectId id : reader.resolve(AbbreviatedObjectId.fromString(digits))) {
                if (walk.parseAny(id) instanceof RevCommit commit) {
                    found.add(id(commit));
                }
            }
            return found;
        }
    }

    /** Trees and blobs of the past, for one thread; to be closed. */
    public Objects objects() {
        return new Objects();
    }

    /** @see #objects */
    public final class Objects implements PastObjects, AutoCloseable {
        private final ObjectReader reader = repository.newObjectReader();
        private final RevWalk walk = new RevWalk(reader);

        private Objects() {}

        @Override
        public Optional<ObjectId> at(ObjectId commit, String path) throws IOException {
            try (TreeWalk tree = TreeWalk.forPath(reader, path, walk.parseTree(jgitId(commit)))) {
                return Optional.ofNullable(tree)
                        .filter(found -> !FileMode.GITLINK.equals(found.getFileMode(0)))
                        .map(found -> id(found.getObjectId(0)));
            } catch (MissingObjectException | IllegalArgumentException e) {
                return Optional.empty();
            }
        }

        @Override
        public byte[] blob(ObjectId id) throws IOException {
            return read(reader, id);
        }

        @Override
        public void close() {
            walk.close();
            reader.close();
        }
    }

    /** The past of the repository, for one thread; to be closed. */
    public CommitSource history() {
        return new MirrorHistory(repository, tree("HEAD"));
    }

    /** The file at a path of a commit, if there is one. */
    public Optional<SourceTree.Entry> entry(String commit, String path) throws IOException {
        String wanted = path.startsWith("/") ? path.substring(1) : path;
        if (wanted.isEmpty()) {
            return Optional.empty();
        }
        try (RevWalk walk = new RevWalk(repository);
                TreeWalk tree = TreeWalk.forPath(
                        repository,
                        wanted,
                        walk.parseCommit(repository.resolve(commit)).getTree())) {
            return tree == null || tree.isSubtree()
                    ? Optional.empty()
                    : Optional.of(entry(tree, wanted, walk.getObjectReader(), _ -> -1));
        } catch (IllegalArgumentException e) {
            return Optional.empty(); // no tree holds such a path: an empty name, say
        }
    }

    /**
     * What lies directly in a folder of a commit.
     *
     * @param folder from the root, without a slash at the end; empty for the root
     * @return nothing if there is no such folder
     */
    public Optional<List<Child>> children(String commit, String folder) throws IOException {
        try (RevWalk walk = new RevWalk(repository)) {
            var root = walk.parseCommit(repository.resolve(commit)).getTree();
            try (TreeWalk tree = new TreeWalk(walk.getObjectReader())) {
                if (folder.isEmpty()) {
                    tree.addTree(root);
                } else {
                    try (TreeWalk found = TreeWalk.forPath(repository, folder, root)) {
                        if (found == null || !found.isSubtree()) {
                            return Optional.empty();
                        }
                        tree.addTree(found.getObjectId(0));
                    }
                }
                List<Child> children = new ArrayList<>();
                while (tree.next()) {
                    String path = (folder.isEmpty() ? "" : folder + "/") + path(tree.getRawPath());
                    children.add(
                            tree.isSubtree()
                                    ? new Child(path, Optional.empty())
                                    : new Child(path, Optional.of(entry(tree, path, walk.getObjectReader(), _ -> -1))));
                }
                return Optional.of(children);
            }
        } catch (IllegalArgumentException e) {
            return Optional.empty(); // no tree holds such a path
        }
    }

    /** @param file empty for a folder */
    public record Child(String path, Optional<SourceTree.Entry> file) {}

    /** @throws IOException if the blob is missing, damaged or too large */
    public byte[] blob(ObjectId id) throws IOException {
        try (ObjectReader reader = repository.newObjectReader()) {
            return read(reader, id);
        }
    }

    private static SourceTree.Entry entry(
            TreeWalk walk, String path, ObjectReader reader, ToLongFunction<ObjectId> knownBytes) throws IOException {
        FileMode mode = walk.getFileMode(0);
        ObjectId id = id(walk.getObjectId(0));
        if (FileMode.GITLINK.equals(mode)) {
            return new SourceTree.Entry(path, id, SourceTree.Kind.SUBMODULE, 0);
        }
        if (FileMode.SYMLINK.equals(mode)) {
            return new SourceTree.Entry(path, id, SourceTree.Kind.LINK, 0);
        }
        long bytes = knownBytes.applyAsLong(id);
        try {
            bytes = bytes >= 0 ? bytes : reader.getObjectSize(walk.getObjectId(0), Constants.OBJ_BLOB);
        } catch (MissingObjectException e) {
            bytes = 0; // a repository that lacks an object: reading it will tell
        }
        return new SourceTree.Entry(path, id, SourceTree.Kind.FILE, bytes);
    }

    /** Paths are bytes to Git: UTF-8 as a rule, Latin-1 where they are not. */
    private static String path(byte[] raw) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(raw))
                    .toString();
        } catch (CharacterCodingException e) {
            return new String(raw, StandardCharsets.ISO_8859_1);
        }
    }

    static ObjectId id(AnyObjectId id) {
        int[] words = new int[ObjectId.BYTES / Integer.BYTES];
        id.copyRawTo(words, 0);
        return new ObjectId(
                (long) words[0] << 32 | Integer.toUnsignedLong(words[1]),
                (long) words[2] << 32 | Integer.toUnsignedLong(words[3]),
                words[4]);
    }

    private static org.eclipse.jgit.lib.ObjectId jgitId(ObjectId id) {
        return org.eclipse.jgit.lib.ObjectId.fromString(id.toString());
    }

    private final class CommitTree implements SourceTree {
        private final String commit;

        CommitTree(String commit) {
            this.commit = commit;
        }

        @Override
        public List<Entry> entries(ToLongFunction<ObjectId> knownBytes) throws IOException {
            List<Entry> entries = new ArrayList<>();
            Set<String> paths = new HashSet<>();
            try (RevWalk walk = new RevWalk(repository);
                    TreeWalk tree = new TreeWalk(walk.getObjectReader())) {
                tree.addTree(walk.parseCommit(repository.resolve(commit)).getTree());
                TreeLimits limits = new TreeLimits();
                while (tree.next()) {
                    if (tree.isSubtree() && enter(tree, limits)) {
                        continue;
                    }
                    limits.file(tree);
                    String path = path(tree.getRawPath());
                    while (!paths.add(path)) {
                        path += "~"; // two byte sequences that read alike
                    }
                    entries.add(entry(tree, path, walk.getObjectReader(), knownBytes));
                }
            }
            return entries;
        }

        /** @return whether it could be entered: a folder that the repository lacks counts as a file without content */
        private boolean enter(TreeWalk tree, TreeLimits limits) throws IOException {
            limits.folder(tree);
            try {
                tree.enterSubtree();
                return true;
            } catch (MissingObjectException e) {
                return false;
            }
        }

        @Override
        public Markings markings(List<Entry> entries) throws IOException {
            AttributeMarkings markings = new AttributeMarkings();
            try (Blobs blobs = blobs()) {
                for (Entry entry : entries) {
                    boolean isAttributes = entry.path().endsWith(Constants.DOT_GIT_ATTRIBUTES)
                            && entry.kind() == Kind.FILE
                            && (entry.path().length() == Constants.DOT_GIT_ATTRIBUTES.length()
                                    || entry.path().endsWith("/" + Constants.DOT_GIT_ATTRIBUTES));
                    if (isAttributes && entry.bytes() <= LARGEST_ATTRIBUTES) {
                        markings.add(entry.path(), blobs.read(entry.id()));
                    }
                }
            }
            return markings;
        }

        @Override
        public Blobs blobs() {
            ObjectReader reader = repository.newObjectReader();
            return new Blobs() {
                @Override
                public byte[] read(ObjectId id) throws IOException {
                    return MirrorReader.this.read(reader, id);
                }

                @Override
                public void close() {
                    reader.close();
                }
            };
        }
    }

    @Override
    public void close() {
        repository.close();
        closed.run();
    }
}
