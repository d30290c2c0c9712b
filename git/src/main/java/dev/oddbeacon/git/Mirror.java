package dev.oddbeacon.git;

import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.core.text.Visible;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import org.eclipse.jgit.lib.Constants;
import org.eclipse.jgit.storage.file.WindowCacheConfig;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A bare copy of a registered repository in the data folder: what the service reads from, so that nothing is ever
 * written to the repository itself and a repository that disappears can still be searched. The system's Git fetches;
 * JGit reads, see {@link MirrorReader}. For one thread at a time.
 */
public final class Mirror {
    private static final Logger LOG = LoggerFactory.getLogger(Mirror.class);

    private static final int LONGEST_NAME = 250; // bytes: names of branches become names of files
    private static final int MOST_REFS = 200_000;
    private static final int MOST_SINGLE = 200;
    private static final int MOST_PACKS = 30;
    private static final int MOST_LOOSE = 4; // files in one of the 256 folders of loose objects: about 1,000 in all
    private static final String WHOLE = "+refs/heads/*:refs/heads/*";
    private static final String TAGS = "+refs/tags/*:refs/tags/*";

    static {
        org.eclipse.jgit.util.FS.FileStoreAttributes.setBackground(
                true); // else the first look waits seconds for a measurement that bare mirrors do not need
        WindowCacheConfig config = new WindowCacheConfig();
        config.setPackedGitMMAP(true);
        config.setPackedGitLimit(256L << 20);
        config.setPackedGitWindowSize(64 << 10);
        config.setDeltaBaseCacheLimit(32 << 20);
        config.install();
    }

    private final Path folder;
    private final Location location;
    private final GitTransport transport;

    /** @throws RepositoryProblemException if the location cannot be one */
    public Mirror(Path folder, String location, GitTransport transport) throws RepositoryProblemException {
        this.folder = folder;
        this.location = Location.parse(location);
        this.transport = transport;
    }

    /** Progress of a fetch. */
    @FunctionalInterface
    public interface FetchProgress {
        /**
         * Takes a step; asked often, also when there is none.
         *
         * @param total 0 if it is not known
         * @return whether to go on
         */
        boolean step(String what, int done, int total);
    }

    /**
     * What a repository has.
     *
     * @param head the branch its HEAD stands for; nothing if it has no commits
     * @param refs branches and tags by full name
     * @param problems what could not be taken, and why
     */
    public record Refs(Optional<String> head, Map<String, String> refs, List<String> problems) {
        /** A full name without what says whether it is a branch or a tag. */
        public static String shortName(String full) {
            return full.substring((full.startsWith(Constants.R_HEADS) ? Constants.R_HEADS : Constants.R_TAGS).length());
        }

        /** The same for the same branches and tags at the same commits, and another one for others. */
        public String digest() {
            MessageDigest digest;
            try {
                digest = MessageDigest.getInstance("SHA-256");
            } catch (NoSuchAlgorithmException e) {
                throw new IllegalStateException(e); // every Java has it
            }
            digest.update((head.orElse("") + "\n").getBytes(StandardCharsets.UTF_8));
            refs.forEach((name, id) -> digest.update((name + " " + id + "\n").getBytes(StandardCharsets.UTF_8)));
            return HexFormat.of().formatHex(digest.digest());
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
     * @throws DiskFullException if there is no room for it; what was fetched of it is removed
     */
    public Refs fetch(FetchProgress progress) throws RepositoryProblemException, DiskFullException {
        try {
            Refs refs = advertised(progress);
            if (refs.refs.isEmpty()) {
                create();
                return refs;
            }
            if (Files.exists(folder) && !isSound()) {
                LOG.warn("The mirror {} is damaged and is made anew", folder.getFileName());
                MirrorFolder.delete(folder);
            }
            create();
            removeLeftovers(folder);
            return fetch(refs, progress);
        } catch (LocationPolicy.ForbiddenException | GitProcess.OverdueException e) {
            throw unreachable(e.getMessage());
        } catch (DiskFullException e) {
            removeWhatIsHalf();
            throw e;
        } catch (IOException e) {
            throw new RepositoryProblemException("Fetching failed: " + e.getMessage(), e);
        }
    }

    /**
     * Asks the repository what it has, and takes none of it.
     *
     * @param stopped asked several times a second
     * @throws RepositoryProblemException if it does not answer
     */
    public Refs listed(BooleanSupplier stopped) throws RepositoryProblemException {
        try {
            return advertised((_, _, _) -> !stopped.getAsBoolean());
        } catch (LocationPolicy.ForbiddenException | GitProcess.OverdueException e) {
            throw unreachable(e.getMessage());
        } catch (IOException e) {
            throw new RepositoryProblemException("Asking failed: " + e.getMessage(), e);
        }
    }

    private void removeWhatIsHalf() {
        try {
            removeLeftovers(folder);
            MirrorFolder.delete(beside());
        } catch (IOException e) {
            LOG.warn("What was left of a fetch could not be removed; the next one does it: {}", e.getMessage());
        }
    }

    /** Where a copy is made before it takes the place of the mirror. */
    private Path beside() {
        return folder.resolveSibling(folder.getFileName() + ".new");
    }

    /** One message for all that keeps the service from a repository: it must not tell what listens where. */
    private RepositoryProblemException unreachable(String reason) {
        LOG.info(
                "{} cannot be fetched from: {}",
                location.text(),
                Visible.escaped(reason.strip().replace('\n', ' ')));
        return new RepositoryProblemException(location.text()
                + " cannot be fetched from: there is no Git repository that the service may read. Its log tells more."
                + (location.host().isPresent() ? " If it is a private one, its host needs a credential." : ""));
    }

    private Refs advertised(FetchProgress progress)
            throws IOException, LocationPolicy.ForbiddenException, RepositoryProblemException {
        GitProcess.Result listed = transport
                .to(location)
                .arguments("ls-remote", "--symref", source(), "HEAD", "refs/heads/*", "refs/tags/*")
                .within(transport.listing(), transport.stall())
                .stop(() -> !progress.step("asking", 0, 0))
                .run();
        if (!listed.isGood()) {
            Optional<String> moved = Moved.of(location, transport);
            if (moved.isPresent()) {
                throw new MovedException(location.text(), moved.get());
            }
            throw unreachable(listed.errors().strip());
        }
        return refs(listed.output());
    }

    /** The location as Git takes it. */
    private String source() {
        return location.folder().map(Path::toString).orElse(location.text());
    }

    private static Refs refs(String listed) throws RepositoryProblemException {
        Map<String, String> refs = new TreeMap<>();
        List<String> problems = new ArrayList<>();
        Optional<String> named = Optional.empty();
        Optional<String> headId = Optional.empty();
        for (String line : Split.parts(listed, '\n')) {
            List<String> parts = Split.parts(line, '\t', 2);
            if (parts.size() < 2 || parts.get(1).endsWith("^{}")) {
                continue;
            }
            String id = parts.getFirst();
            String name = parts.get(1);
            if (id.startsWith("ref: ") && name.equals(Constants.HEAD)) {
                named = Optional.of(id.substring("ref: ".length()));
            } else if (name.equals(Constants.HEAD)) {
                headId = Optional.of(id);
            } else if (isName(name)) {
                refs.put(name, id);
            } else {
                problems.add("A branch or tag was left out: its name has more than " + LONGEST_NAME
                        + " bytes, or characters that cannot be seen.");
            }
        }
        if (refs.size() > MOST_REFS) {
            throw new RepositoryProblemException(
                    "It has " + refs.size() + " branches and tags; at most " + MOST_REFS + " are taken.");
        }
        return new Refs(
                head(refs, named, headId), refs, problems.stream().distinct().toList());
    }

    private static boolean isName(String ref) {
        return (ref.startsWith(Constants.R_HEADS) || ref.startsWith(Constants.R_TAGS))
                && Visible.isVisible(ref)
                && ref.getBytes(StandardCharsets.UTF_8).length <= LONGEST_NAME;
    }

    private static Optional<String> head(Map<String, String> refs, Optional<String> named, Optional<String> headId) {
        List<String> branches = refs.keySet().stream()
                .filter(name -> name.startsWith(Constants.R_HEADS))
                .toList();
        return named.filter(branches::contains)
                .or(() -> headId.flatMap(id -> branches.stream()
                        .filter(name -> refs.get(name).equals(id))
                        .findFirst()))
                .or(() -> branches.stream().findFirst())
                .map(Refs::shortName);
    }

    private void create() throws IOException {
        if (Files.exists(folder.resolve(Constants.HEAD))) {
            return;
        }
        MirrorFolder.delete(folder);
        GitProcess.Result made = transport
                .local()
                .arguments("init", "--quiet", "--bare", "--template=", folder.toString())
                .run();
        if (!made.isGood()) {
            throw new IOException("the mirror cannot be made: " + made.errors().strip());
        }
    }

    /** Whether Git can read the mirror's configuration and all of its refs. */
    private boolean isSound() throws IOException {
        GitProcess.Result read = transport
                .local()
                .arguments("--git-dir=" + folder, "for-each-ref", "--format=%(objecttype)")
                .run();
        return read.isGood() && read.errors().isBlank();
    }

    /** Removes what a process that was killed left: nobody else uses the mirror now. */
    static void removeLeftovers(Path folder) throws IOException {
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                String name = file.getFileName().toString();
                if (name.endsWith(".lock")
                        || name.endsWith(".keep")
                        || name.startsWith("tmp_")
                        || name.startsWith("incoming_")
                        || name.startsWith(".tmp-")) {
                    LOG.info(
                            "Removing {} of the mirror {}, left by a process that was ended",
                            name,
                            folder.getFileName());
                    Files.deleteIfExists(file);
                }
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException e) throws IOException {
                if (e instanceof NoSuchFileException) {
                    return FileVisitResult.CONTINUE;
                }
                throw e;
            }
        });
    }

    private Refs fetch(Refs refs, FetchProgress progress)
            throws IOException, LocationPolicy.ForbiddenException, RepositoryProblemException {
        List<String> specs = new ArrayList<>(List.of(WHOLE, TAGS));
        if (!refs.problems.isEmpty()) { // names that no file can have would make all of it fail
            specs = refs.refs.size() > MOST_SINGLE ? specs : new ArrayList<>(singleSpecs(refs));
        }
        GitProcess.Result fetched = run(specs, progress);
        if (fetched.isGood()) {
            return refs;
        }
        LOG.warn(
                "Fetching from {} failed: {}",
                location.text(),
                Visible.escaped(fetched.errors().strip().replace('\n', ' ')));
        if (location.folder().isPresent()) {
            copy(progress);
        }
        return oneByOne(refs, progress);
    }

    private static List<String> singleSpecs(Refs refs) {
        return refs.refs.keySet().stream().map(name -> "+" + name + ":" + name).toList();
    }

    private GitProcess.Result run(List<String> specs, FetchProgress progress)
            throws IOException, LocationPolicy.ForbiddenException, RepositoryProblemException {
        long before = MirrorFolder.bytes(folder);
        int[] asked = {0};
        boolean[] isTooLarge = {false};
        List<String> arguments = new ArrayList<>(List.of(
                "--git-dir=" + folder,
                "fetch",
                "--prune",
                "--force",
                "--no-tags",
                "--no-write-fetch-head",
                "--no-recurse-submodules",
                "--no-auto-maintenance",
                "--update-head-ok",
                "--update-shallow", // of a repository whose past is cut
                "--progress",
                source()));
        arguments.addAll(specs);
        String[] last = {"fetching"};
        try {
            return transport
                    .to(location)
                    .arguments(arguments)
                    .within(transport.longest(), transport.stall())
                    .progress(line -> last[0] = line)
                    .stop(() -> {
                        boolean goesOn = tell(last[0], progress);
                        isTooLarge[0] =
                                ++asked[0] % 20 == 0 && MirrorFolder.bytes(folder) - before > transport.mostBytes();
                        return !goesOn || isTooLarge[0];
                    })
                    .run();
        } catch (CancellationException e) {
            if (!isTooLarge[0]) {
                throw e;
            }
            removeLeftovers(folder);
            throw new RepositoryProblemException(
                    "It is larger than " + (transport.mostBytes() >> 20) + " MiB, the most that is fetched at once.");
        }
    }

    /** A line such as {@code Receiving objects:  45% (450/1000), 1.20 MiB | 2.00 MiB/s}. */
    private static boolean tell(String told, FetchProgress progress) {
        String line = told.startsWith("remote: ") ? told.substring("remote: ".length()) : told;
        int colon = line.indexOf(':');
        int open = line.indexOf('(', Math.max(0, colon));
        int slash = line.indexOf('/', Math.max(0, open));
        int close = line.indexOf(')', Math.max(0, slash));
        if (colon > 0 && open > 0 && slash > 0 && close > 0) {
            try {
                return progress.step(
                        line.substring(0, colon).strip(),
                        Integer.parseInt(line.substring(open + 1, slash)),
                        Integer.parseInt(line.substring(slash + 1, close)));
            } catch (NumberFormatException e) {
                // it tells of something else
            }
        }
        return progress.step("fetching", 0, 0);
    }

    /**
     * Of a folder that lacks an object, Git sends nothing; its files can be copied all the same. Nothing is linked, so
     * nothing that happens to the copy reaches the repository.
     */
    private void copy(FetchProgress progress) throws IOException, LocationPolicy.ForbiddenException {
        Path fresh = beside();
        MirrorFolder.delete(fresh);
        GitProcess.Result copied = transport
                .to(location)
                .arguments("clone", "--quiet", "--bare", "--no-hardlinks", "--template=", source(), fresh.toString())
                .within(transport.longest(), transport.longest())
                .stop(() -> !progress.step("copying", 0, 0))
                .run();
        if (copied.isGood()) {
            MirrorFolder.delete(folder);
            Files.move(fresh, folder);
        } else {
            MirrorFolder.delete(fresh);
        }
    }

    /** One branch after the other: what can be taken is, and the rest is named. */
    private Refs oneByOne(Refs refs, FetchProgress progress)
            throws IOException, LocationPolicy.ForbiddenException, RepositoryProblemException {
        Map<String, String> taken = new TreeMap<>();
        List<String> missed = new ArrayList<>();
        String reason = "";
        for (Map.Entry<String, String> ref : refs.refs.entrySet()) {
            if (has(ref.getKey(), ref.getValue())) {
                taken.put(ref.getKey(), ref.getValue());
            } else if (taken.size() + missed.size() < MOST_SINGLE) {
                GitProcess.Result one = run(List.of("+" + ref.getKey() + ":" + ref.getKey()), progress);
                if (one.isGood()) {
                    taken.put(ref.getKey(), ref.getValue());
                } else {
                    reason = one.errors().strip();
                    missed.add(Refs.shortName(ref.getKey()));
                }
            } else {
                missed.add(Refs.shortName(ref.getKey()));
            }
        }
        if (taken.isEmpty()) {
            throw unreachable(reason);
        }
        List<String> problems = new ArrayList<>(refs.problems);
        if (!missed.isEmpty()) {
            problems.add("Not all of it could be fetched: "
                    + missed.stream().limit(10).toList()
                    + (missed.size() > 10 ? " and " + (missed.size() - 10) + " more" : "")
                    + " stayed as they were. The log of the service tells why.");
        } else {
            problems.add("It lacks some of its objects: files that cannot be read are left out.");
        }
        return new Refs(refs.head.filter(head -> taken.containsKey(Constants.R_HEADS + head)), taken, problems);
    }

    private boolean has(String name, String id) throws IOException {
        GitProcess.Result at = transport
                .local()
                .arguments("--git-dir=" + folder, "rev-parse", "--verify", "--quiet", name)
                .run();
        return at.isGood() && at.output().strip().equals(id);
    }

    /**
     * Packs what many fetches left, if there is much of it: a pack is made of the small ones, so that each object is
     * packed again as often as the repository doubles. Takes seconds or, seldom, minutes.
     *
     * @return whether there was anything to do
     */
    public boolean upkeep() throws IOException {
        if (count(folder.resolve("objects/pack"), ".pack") <= MOST_PACKS && looseObjects() <= MOST_LOOSE) {
            return false;
        }
        GitProcess.Result packed = transport
                .local()
                .arguments("--git-dir=" + folder, "repack", "--geometric=2", "-d", "-q")
                .within(transport.longest(), transport.longest())
                .run();
        if (!packed.isGood()) {
            LOG.warn(
                    "Packing {} failed: {}",
                    folder.getFileName(),
                    Visible.escaped(packed.errors().strip().replace('\n', ' ')));
            return false;
        }
        transport.local().arguments("--git-dir=" + folder, "prune-packed", "-q").run();
        transport.local().arguments("--git-dir=" + folder, "pack-refs", "--all").run();
        return true;
    }

    private long looseObjects() throws IOException {
        return count(folder.resolve("objects/17"), ""); // object ids are random: one folder stands for all
    }

    private static long count(Path folder, String ending) throws IOException {
        if (!Files.isDirectory(folder)) {
            return 0;
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(file -> file.toString().endsWith(ending)).count();
        }
    }
}
