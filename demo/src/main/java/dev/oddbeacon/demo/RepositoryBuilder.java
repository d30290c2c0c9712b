package dev.oddbeacon.demo;

import dev.oddbeacon.demo.Chronicle.Commit;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.eclipse.jgit.dircache.DirCache;
import org.eclipse.jgit.dircache.DirCacheBuilder;
import org.eclipse.jgit.dircache.DirCacheEntry;
import org.eclipse.jgit.lib.CommitBuilder;
import org.eclipse.jgit.lib.Constants;
import org.eclipse.jgit.lib.FileMode;
import org.eclipse.jgit.lib.ObjectId;
import org.eclipse.jgit.lib.ObjectInserter;
import org.eclipse.jgit.lib.PersonIdent;
import org.eclipse.jgit.lib.RefUpdate;
import org.eclipse.jgit.lib.Repository;
import org.eclipse.jgit.storage.file.FileRepositoryBuilder;

/**
 * Makes a bare Git repository of a chronicle and its files. The same text gives the same commit ids on every machine.
 *
 * <p>What cannot be kept as text has an ending that is taken off: {@code .base64} is decoded, {@code .latin1} and
 * {@code .utf16} become text in that encoding, {@code .link} a link to what the file says, {@code .submodule} a
 * submodule at that commit. Files that begin with {@code #!} are executable.
 */
final class RepositoryBuilder {
    private static final String MAIN = "main";

    private final Path source;
    private final Chronicle chronicle;
    private final Map<String, FileMode> modes = new HashMap<>();

    RepositoryBuilder(Path source) throws IOException {
        this.source = source;
        this.chronicle = Chronicle.read(source.resolve("chronicle"));
    }

    Chronicle chronicle() {
        return chronicle;
    }

    /** A line of commits: its last one and the files as they are there. */
    private record Line(ObjectId tip, TreeMap<String, byte[]> files) {}

    void build(Path target) throws IOException {
        Map<Commit, Map<String, Optional<byte[]>>> changes = Retelling.of(chronicle, source, finalFiles());
        try (Repository repository = new FileRepositoryBuilder()
                        .setBare()
                        .setGitDir(target.toFile())
                        .build();
                ObjectInserter objects = repository.newObjectInserter()) {
            repository.create(true);
            Map<String, Line> lines = new LinkedHashMap<>();
            Map<String, String> tags = new LinkedHashMap<>();
            Map<String, Map<String, Optional<byte[]>>> ofBranch = new HashMap<>();
            String current = MAIN;
            lines.put(MAIN, new Line(ObjectId.zeroId(), new TreeMap<>()));
            for (Chronicle.Step step : chronicle.steps()) {
                Line line = lines.get(current);
                switch (step) {
                    case Commit commit -> {
                        TreeMap<String, byte[]> files = changed(line.files, changes.get(commit));
                        ofBranch.computeIfAbsent(current, name -> new LinkedHashMap<>())
                                .putAll(changes.get(commit));
                        List<ObjectId> parents = line.tip.equals(ObjectId.zeroId()) ? List.of() : List.of(line.tip);
                        lines.put(
                                current,
                                new Line(
                                        commit(
                                                objects,
                                                files,
                                                parents,
                                                person(commit.person(), commit.date()),
                                                commit.message()),
                                        files));
                    }
                    case Chronicle.Branch branch -> {
                        lines.put(branch.name(), line);
                        current = branch.name();
                    }
                    case Chronicle.On on -> current = on.branch();
                    case Chronicle.Merge merge -> {
                        TreeMap<String, byte[]> files = changed(line.files, ofBranch.get(merge.branch()));
                        List<ObjectId> parents = List.of(line.tip, lines.remove(merge.branch()).tip);
                        lines.put(
                                current,
                                new Line(
                                        commit(
                                                objects,
                                                files,
                                                parents,
                                                person(merge.person(), merge.date()),
                                                merge.message()),
                                        files));
                    }
                    case Chronicle.Tag tag -> tags.put(tag.name(), line.tip.name());
                }
            }
            objects.flush();
            for (Map.Entry<String, Line> line : lines.entrySet()) {
                point(repository, Constants.R_HEADS + line.getKey(), line.getValue().tip);
            }
            for (Map.Entry<String, String> tag : tags.entrySet()) {
                point(repository, Constants.R_TAGS + tag.getKey(), ObjectId.fromString(tag.getValue()));
            }
            repository.updateRef(Constants.HEAD, true).link(Constants.R_HEADS + MAIN);
        }
    }

    private static TreeMap<String, byte[]> changed(
            TreeMap<String, byte[]> files, Map<String, Optional<byte[]>> changes) {
        TreeMap<String, byte[]> result = new TreeMap<>(files);
        changes.forEach((path, content) ->
                content.ifPresentOrElse(bytes -> result.put(path, bytes), () -> result.remove(path)));
        return result;
    }

    private PersonIdent person(String id, java.time.OffsetDateTime date) {
        Chronicle.Person person = chronicle.people().get(id);
        return new PersonIdent(person.name(), person.address(), date.toInstant(), date.getOffset());
    }

    private ObjectId commit(
            ObjectInserter objects,
            TreeMap<String, byte[]> files,
            List<ObjectId> parents,
            PersonIdent person,
            String message)
            throws IOException {
        DirCache tree = DirCache.newInCore();
        DirCacheBuilder builder = tree.builder();
        for (Map.Entry<String, byte[]> file : files.entrySet()) {
            DirCacheEntry entry = new DirCacheEntry(file.getKey());
            byte[] content = file.getValue();
            FileMode mode = modes.getOrDefault(
                    file.getKey(),
                    content.length > 1 && content[0] == '#' && content[1] == '!'
                            ? FileMode.EXECUTABLE_FILE
                            : FileMode.REGULAR_FILE);
            entry.setFileMode(mode);
            entry.setObjectId(
                    mode == FileMode.GITLINK
                            ? ObjectId.fromString(text(content))
                            : objects.insert(Constants.OBJ_BLOB, content));
            builder.add(entry);
        }
        builder.finish();
        CommitBuilder commit = new CommitBuilder();
        commit.setTreeId(tree.writeTree(objects));
        commit.setParentIds(parents);
        commit.setAuthor(person);
        commit.setCommitter(person);
        commit.setMessage(message + "\n");
        return objects.insert(commit);
    }

    private static void point(Repository repository, String ref, ObjectId commit) throws IOException {
        RefUpdate update = repository.updateRef(ref);
        update.setNewObjectId(commit);
        update.forceUpdate();
    }

    private Map<String, byte[]> finalFiles() throws IOException {
        Path root = source.resolve("files");
        Map<String, byte[]> files = new TreeMap<>();
        try (Stream<Path> walk = Files.walk(root)) {
            for (Path file : walk.filter(Files::isRegularFile).toList()) {
                String path = root.relativize(file).toString().replace('\\', '/');
                int dot = path.lastIndexOf('.');
                String bare = dot < 0 ? path : path.substring(0, dot);
                byte[] content = Files.readAllBytes(file);
                switch (dot < 0 ? "" : path.substring(dot + 1)) {
                    case "base64" -> files.put(bare, Base64.getMimeDecoder().decode(content));
                    case "latin1" -> files.put(bare, text(content).concat("\n").getBytes(StandardCharsets.ISO_8859_1));
                    case "utf16" -> files.put(bare, utf16(text(content) + "\r\n"));
                    case "link" -> special(files, bare, content, FileMode.SYMLINK);
                    case "submodule" -> special(files, bare, content, FileMode.GITLINK);
                    default -> files.put(path, content);
                }
            }
        }
        return files;
    }

    private void special(Map<String, byte[]> files, String path, byte[] content, FileMode mode) {
        files.put(path, text(content).getBytes(StandardCharsets.UTF_8));
        modes.put(path, mode);
    }

    private static byte[] utf16(String text) {
        byte[] units = text.getBytes(StandardCharsets.UTF_16LE);
        byte[] marked = new byte[units.length + 2];
        marked[0] = (byte) 0xFF;
        marked[1] = (byte) 0xFE;
        System.arraycopy(units, 0, marked, 2, units.length);
        return marked;
    }

    private static String text(byte[] content) {
        return new String(content, StandardCharsets.UTF_8).strip();
    }
}
