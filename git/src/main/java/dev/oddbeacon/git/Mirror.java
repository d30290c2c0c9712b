package dev.oddbeacon.git;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.eclipse.jgit.api.Git;
import org.eclipse.jgit.api.errors.GitAPIException;
import org.eclipse.jgit.errors.NoRemoteRepositoryException;
import org.eclipse.jgit.lib.Constants;
import org.eclipse.jgit.lib.EmptyProgressMonitor;
import org.eclipse.jgit.lib.ProgressMonitor;
import org.eclipse.jgit.lib.Ref;
import org.eclipse.jgit.storage.file.WindowCacheConfig;
import org.eclipse.jgit.transport.NetRCCredentialsProvider;
import org.eclipse.jgit.transport.RefSpec;
import org.eclipse.jgit.transport.SshSessionFactory;
import org.eclipse.jgit.transport.TagOpt;
import org.eclipse.jgit.transport.URIish;
import org.eclipse.jgit.transport.sshd.SshdSessionFactoryBuilder;
import org.eclipse.jgit.util.FS;

/**
 * A bare copy of a registered repository in the data folder: what the service reads from, so that nothing is ever
 * written to the repository itself and a repository that disappears can still be searched. For one thread at a time.
 */
public final class Mirror {
    private static final int TIMEOUT_SECONDS = 60;

    static {
        FS.FileStoreAttributes.setBackground(
                true); // else the first fetch waits seconds for a measurement that bare mirrors do not need
        WindowCacheConfig config = new WindowCacheConfig();
        config.setPackedGitMMAP(true);
        config.setPackedGitLimit(256L << 20);
        config.setPackedGitWindowSize(64 << 10);
        config.setDeltaBaseCacheLimit(32 << 20);
        config.install();
        SshSessionFactory.setInstance(new SshdSessionFactoryBuilder()
                .setPreferredAuthentications("publickey")
                .setHomeDirectory(FS.DETECTED.userHome())
                .setSshDirectory(FS.DETECTED.userHome().toPath().resolve(".ssh").toFile())
                .build(null));
    }

    private final Path folder;
    private final URIish location;

    /** @throws RepositoryProblemException if the location cannot be one */
    public Mirror(Path folder, String location) throws RepositoryProblemException {
        this.folder = folder;
        this.location = Location.parse(location);
    }

    /** Progress of a fetch. */
    @FunctionalInterface
    public interface FetchProgress {
        /** @param total 0 if it is not known */
        void step(String what, int done, int total);
    }

    /**
     * What a repository has.
     *
     * @param head the branch its HEAD stands for; nothing if it has no commits
     * @param refs branches and tags by full name
     */
    public record Refs(Optional<String> head, Map<String, String> refs) {
        /** A full name without what says whether it is a branch or a tag. */
        public static String shortName(String full) {
            return full.substring((full.startsWith(Constants.R_HEADS) ? Constants.R_HEADS : Constants.R_TAGS).length());
        }

        /** The full name of a branch or, failing that, a tag of that name. */
        public Optional<String> find(String name) {
            return Stream.of(Constants.R_HEADS + name, Constants.R_TAGS + name)
                    .filter(refs::containsKey)
                    .findFirst();
        }
    }

    /**
     * Brings the mirror up to date, all branches and tags; what was deleted or rewritten there is here too.
     *
     * @throws RepositoryProblemException if the repository is not there, is none, or cannot be reached
     */
    public Refs fetch(FetchProgress progress) throws RepositoryProblemException {
        if (!location.isRemote() && !Files.exists(Path.of(location.getPath()))) {
            throw new RepositoryProblemException("There is no folder " + location.getPath()
                    + ". If the repository has moved, remove it and add it where it is now.");
        }
        try (Git git = Files.exists(folder.resolve("HEAD"))
                ? Git.open(folder.toFile())
                : Git.init().setBare(true).setGitDir(folder.toFile()).call()) {
            Refs refs = refs(advertised(git));
            if (!refs.refs.isEmpty()) {
                git.fetch()
                        .setRemote(location.toPrivateString())
                        .setRefSpecs(new RefSpec("+refs/heads/*:refs/heads/*"), new RefSpec("+refs/tags/*:refs/tags/*"))
                        .setTagOpt(TagOpt.NO_TAGS)
                        .setRemoveDeletedRefs(true)
                        .setTimeout(TIMEOUT_SECONDS)
                        .setCredentialsProvider(new NetRCCredentialsProvider())
                        .setProgressMonitor(monitor(progress))
                        .call();
            }
            return refs;
        } catch (GitAPIException | IOException e) {
            throw new RepositoryProblemException("Fetching from " + location + " failed: " + reason(e), e);
        }
    }

    private Map<String, Ref> advertised(Git git) throws RepositoryProblemException {
        try {
            return git.lsRemote()
                    .setRemote(location.toPrivateString())
                    .setTimeout(TIMEOUT_SECONDS)
                    .setCredentialsProvider(new NetRCCredentialsProvider())
                    .callAsMap();
        } catch (GitAPIException e) {
            if (e.getCause() instanceof NoRemoteRepositoryException) {
                throw new RepositoryProblemException(location + " is not a Git repository.", e);
            }
            throw new RepositoryProblemException(location + " cannot be reached: " + reason(e), e);
        }
    }

    private static Refs refs(Map<String, Ref> remote) {
        Map<String, String> refs = new TreeMap<>();
        remote.forEach((name, ref) -> {
            if ((name.startsWith(Constants.R_HEADS) || name.startsWith(Constants.R_TAGS))
                    && ref.getObjectId() != null) {
                refs.put(name, ref.getObjectId().name());
            }
        });
        Ref head = remote.get(Constants.HEAD);
        Optional<String> named = Optional.ofNullable(head)
                .filter(Ref::isSymbolic)
                .map(ref -> ref.getTarget().getName())
                .filter(refs::containsKey);
        Optional<String> sameCommit = Optional.ofNullable(head)
                .map(Ref::getObjectId)
                .flatMap(id -> refs.entrySet().stream()
                        .filter(entry -> entry.getKey().startsWith(Constants.R_HEADS)
                                && entry.getValue().equals(id.name()))
                        .map(Map.Entry::getKey)
                        .findFirst());
        Optional<String> first = refs.keySet().stream()
                .filter(name -> name.startsWith(Constants.R_HEADS))
                .findFirst();
        return new Refs(
                named.or(() -> sameCommit).or(() -> first).map(name -> name.substring(Constants.R_HEADS.length())),
                refs);
    }

    private static String reason(Exception e) {
        Throwable cause = e;
        while (cause.getCause() != null && cause.getCause() != cause) {
            cause = cause.getCause();
        }
        String message = cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
        return message.endsWith(".") ? message : message + ".";
    }

    private static ProgressMonitor monitor(FetchProgress progress) {
        return new EmptyProgressMonitor() {
            private String what = "";
            private int total;
            private int done;

            @Override
            public void beginTask(String title, int totalWork) {
                what = title;
                total = totalWork;
                done = 0;
                progress.step(what, 0, total);
            }

            @Override
            public void update(int completed) {
                done += completed;
                progress.step(what, done, total);
            }
        };
    }

    /** Removes the mirror. */
    public static void delete(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return;
        }
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        }
    }
}
