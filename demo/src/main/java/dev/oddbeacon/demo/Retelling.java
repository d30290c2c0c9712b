package dev.oddbeacon.demo;

import dev.oddbeacon.demo.Chronicle.Change;
import dev.oddbeacon.demo.Chronicle.Commit;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Finds out what each commit of a chronicle changes, going backwards from the files as they are at the end: what a
 * commit added is taken away, what it edited gets its text of before.
 */
final class Retelling {
    private final Path folder;
    private final TreeMap<String, byte[]> files;

    private Retelling(Path folder, TreeMap<String, byte[]> files) {
        this.folder = folder;
        this.files = files;
    }

    /**
     * The files that each commit touches, with their content after it; without one if it deletes them.
     *
     * @param files at the end of the main branch
     * @throws IOException if the chronicle does not fit the files
     */
    static Map<Commit, Map<String, Optional<byte[]>>> of(Chronicle chronicle, Path folder, Map<String, byte[]> files)
            throws IOException {
        Retelling retelling = new Retelling(folder, new TreeMap<>(files));
        Map<Commit, Map<String, Optional<byte[]>>> changes = new IdentityHashMap<>();
        for (Chronicle.Step step : chronicle.steps().reversed()) {
            if (step instanceof Commit commit) {
                changes.put(commit, retelling.undo(commit));
            }
        }
        if (!retelling.files.isEmpty()) {
            throw new IOException(folder + ": no commit adds " + retelling.files.keySet());
        }
        return changes;
    }

    private Map<String, Optional<byte[]>> undo(Commit commit) throws IOException {
        Map<String, Optional<byte[]>> touched = new LinkedHashMap<>();
        for (Change change : commit.changes().reversed()) {
            switch (change) {
                case Chronicle.Add add -> undoAdd(add, touched, commit);
                case Chronicle.Edit edit -> undoEdit(edit, touched, commit);
                case Chronicle.Rename rename -> {
                    byte[] content = take(rename.to(), commit);
                    touched.putIfAbsent(rename.to(), Optional.of(content));
                    touched.putIfAbsent(rename.from(), Optional.empty());
                    files.put(rename.from(), content);
                }
                case Chronicle.Delete delete -> {
                    touched.putIfAbsent(delete.path(), Optional.empty());
                    files.put(delete.path(), Files.readAllBytes(folder.resolve(delete.file())));
                }
                case Chronicle.Write write ->
                    touched.putIfAbsent(write.path(), Optional.of(Files.readAllBytes(folder.resolve(write.file()))));
            }
        }
        return touched;
    }

    private void undoAdd(Chronicle.Add add, Map<String, Optional<byte[]>> touched, Commit commit) throws IOException {
        PathMatcher matcher = FileSystems.getDefault().getPathMatcher("glob:" + add.glob());
        List<String> added = new ArrayList<>(files.keySet().stream()
                .filter(path -> matcher.matches(Path.of(path)))
                .toList());
        if (added.isEmpty()) {
            throw new IOException(
                    folder + ": nothing is left to be added as " + add.glob() + " by \"" + commit.message() + "\"");
        }
        for (String path : added) {
            touched.putIfAbsent(path, Optional.of(files.remove(path)));
        }
    }

    private void undoEdit(Chronicle.Edit edit, Map<String, Optional<byte[]>> touched, Commit commit)
            throws IOException {
        byte[] content = take(edit.path(), commit);
        String text = new String(content, StandardCharsets.UTF_8);
        int at = text.indexOf(edit.after());
        if (at < 0 || text.indexOf(edit.after(), at + 1) >= 0) {
            throw new IOException(folder + ": " + edit.path() + " must hold once, after \"" + commit.message() + "\": "
                    + edit.after());
        }
        touched.putIfAbsent(edit.path(), Optional.of(content));
        files.put(
                edit.path(),
                (text.substring(0, at)
                                + edit.before()
                                + text.substring(at + edit.after().length()))
                        .getBytes(StandardCharsets.UTF_8));
    }

    private byte[] take(String path, Commit commit) throws IOException {
        byte[] content = files.remove(path);
        if (content == null) {
            throw new IOException(folder + ": there is no " + path + " for \"" + commit.message() + "\" to change");
        }
        return content;
    }
}
