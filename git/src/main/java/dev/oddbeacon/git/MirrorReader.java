package dev.oddbeacon.git;

import dev.oddbeacon.core.history.CommitSource;
import dev.oddbeacon.core.ingest.SourceTree;
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
import java.util.Set;
import java.util.function.ToLongFunction;
import org.eclipse.jgit.errors.IncorrectObjectTypeException;
import org.eclipse.jgit.errors.MissingObjectException;
import org.eclipse.jgit.errors.RevisionSyntaxException;
import org.eclipse.jgit.lib.AnyObjectId;
import org.eclipse.jgit.lib.Constants;
import org.eclipse.jgit.lib.FileMode;
import org.eclipse.jgit.lib.ObjectReader;
import org.eclipse.jgit.lib.Repository;
import org.eclipse.jgit.revwalk.RevCommit;
import org.eclipse.jgit.revwalk.RevWalk;
import org.eclipse.jgit.storage.file.FileRepositoryBuilder;
import org.eclipse.jgit.treewalk.TreeWalk;

/** Reads commits, trees and blobs of a mirror. Threads may share one; {@link #close} when done. */
public final class MirrorReader implements AutoCloseable {
    private static final int LARGEST_READ = 1 << 30;
    private static final int LARGEST_ATTRIBUTES = 1 << 20;

    private final Repository repository;

    public MirrorReader(Path folder) throws IOException {
        repository = new FileRepositoryBuilder().setGitDir(folder.toFile()).setMustExist(true).setBare().build();
    }

    public record Commit(String id, Instant committed) {}

    /** The commit that a revision names: a branch, a tag, an id or its unambiguous beginning, {@code main~3}. */
    public Optional<Commit> commit(String revision) throws IOException {
        try (RevWalk walk = new RevWalk(repository)) {
            org.eclipse.jgit.lib.ObjectId id = repository.resolve(revision + "^{commit}");
            if (id == null) {
                return Optional.empty();
            }
            RevCommit commit = walk.parseCommit(id);
            return Optional.of(new Commit(commit.name(), Instant.ofEpochSecond(commit.getCommitTime())));
        } catch (RevisionSyntaxException | IncorrectObjectTypeException | MissingObjectException
                | org.eclipse.jgit.errors.AmbiguousObjectException | StringIndexOutOfBoundsException e) {
            return Optional.empty();
        }
    }

    /** The files of a commit. */
    public SourceTree tree(String commit) {
        return new CommitTree(commit);
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
                TreeWalk tree = TreeWalk.forPath(repository, wanted, walk.parseCommit(repository.resolve(commit)).getTree())) {
            return tree == null || tree.isSubtree() ? Optional.empty() : Optional.of(entry(tree, wanted, walk.getObjectReader(), _ -> -1));
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
            try (TreeWalk tree = new TreeWalk(repository, walk.getObjectReader())) {
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
                    children.add(tree.isSubtree() ? new Child(path, Optional.empty()) : new Child(path, Optional.of(entry(tree, path, walk.getObjectReader(), _ -> -1))));
                }
                return Optional.of(children);
            }
        } catch (IllegalArgumentException e) {
            return Optional.empty(); // no tree holds such a path
        }
    }

    /** @param file empty for a folder */
    public record Child(String path, Optional<SourceTree.Entry> file) {}

    /** @throws IOException if the blob is missing, damaged, or larger than 1 GiB */
    public byte[] blob(ObjectId id) throws IOException {
        return repository.open(jgitId(id), Constants.OBJ_BLOB).getCachedBytes(LARGEST_READ);
    }

    private static SourceTree.Entry entry(TreeWalk walk, String path, ObjectReader reader, ToLongFunction<ObjectId> knownBytes) throws IOException {
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
            return StandardCharsets.UTF_8.newDecoder().onMalformedInput(CodingErrorAction.REPORT).decode(ByteBuffer.wrap(raw)).toString();
        } catch (CharacterCodingException e) {
            return new String(raw, StandardCharsets.ISO_8859_1);
        }
    }

    static ObjectId id(AnyObjectId id) {
        int[] words = new int[ObjectId.BYTES / Integer.BYTES];
        id.copyRawTo(words, 0);
        return new ObjectId((long) words[0] << 32 | Integer.toUnsignedLong(words[1]), (long) words[2] << 32 | Integer.toUnsignedLong(words[3]), words[4]);
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
            try (RevWalk walk = new RevWalk(repository); TreeWalk tree = new TreeWalk(repository, walk.getObjectReader())) {
                tree.addTree(walk.parseCommit(repository.resolve(commit)).getTree());
                tree.setRecursive(true);
                while (tree.next()) {
                    String path = path(tree.getRawPath());
                    while (!paths.add(path)) {
                        path += "~"; // two byte sequences that read alike
                    }
                    entries.add(entry(tree, path, walk.getObjectReader(), knownBytes));
                }
            }
            return entries;
        }

        @Override
        public Markings markings(List<Entry> entries) throws IOException {
            AttributeMarkings markings = new AttributeMarkings();
            try (Blobs blobs = blobs()) {
                for (Entry entry : entries) {
                    boolean isAttributes = entry.path().endsWith(Constants.DOT_GIT_ATTRIBUTES) && entry.kind() == Kind.FILE
                            && (entry.path().length() == Constants.DOT_GIT_ATTRIBUTES.length() || entry.path().endsWith("/" + Constants.DOT_GIT_ATTRIBUTES));
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
                    return reader.open(jgitId(id), Constants.OBJ_BLOB).getCachedBytes(LARGEST_READ);
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
    }
}
