package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.LineDiff;
import dev.oddbeacon.core.history.diff.LineRun;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.history.diff.TextLines;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.text.Utf8;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/**
 * A commit with all that it changed, ready to be written.
 *
 * @param whole whether the lines are there; not of a commit that changes too many
 */
record CommitChanges(Commit commit, List<FileLines> files, boolean whole) {
    /** Larger files are counted as binary ones. In bytes. */
    private static final int LARGEST_FILE = 32 << 20;
    /** Most bytes of changed lines that are stored of a commit; beyond that only its files are known. */
    static final long LARGEST_COMMIT = 64L << 20;

    /**
     * @param binary whether its lines were not looked at, because it is binary, too large or missing
     * @param runs none, one or two: those that went, those that came
     */
    record FileLines(PathChange change, int added, int removed, boolean binary, List<LineRun> runs) {}

    static CommitChanges of(CommitSource source, Blobs blobs, ObjectId id) throws IOException {
        Commit commit = source.commit(id);
        List<FileLines> files = new ArrayList<>();
        long bytes = 0;
        boolean whole = true;
        List<PathChange> changes = List.of();
        try {
            changes = commit.isMerge() ? List.of() : source.changes(commit);
        } catch (IOException e) { // it is too large, or the repository lacks a folder of it
            whole = false; // what it changed is left out, and told to be
        }
        for (PathChange change : changes) {
            FileLines file = lines(change, blobs);
            bytes += file.runs.stream().mapToLong(run -> run.text().length).sum();
            if (bytes > LARGEST_COMMIT && whole) {
                whole = false;
                files.replaceAll(CommitChanges::withoutLines);
            }
            files.add(whole ? file : withoutLines(file));
        }
        return new CommitChanges(commit, files, whole);
    }

    private static FileLines withoutLines(FileLines file) {
        return new FileLines(file.change, file.added, file.removed, file.binary, List.of());
    }

    private static FileLines lines(PathChange change, Blobs blobs) {
        if (!change.isFile()) {
            return new FileLines(change, 0, 0, true, List.of());
        }
        try {
            byte[] before = bytes(change.before(), blobs);
            byte[] after = change.before().equals(change.after()) ? before : bytes(change.after(), blobs);
            if (before.length > LARGEST_FILE
                    || after.length > LARGEST_FILE
                    || TextLines.isBinary(before)
                    || TextLines.isBinary(after)) {
                return new FileLines(change, 0, 0, true, List.of());
            }
            return lines(change, new TextLines(before), new TextLines(after));
        } catch (IOException e) {
            return new FileLines(change, 0, 0, true, List.of()); // missing from the repository; its other files are not
        }
    }

    private static byte[] bytes(ObjectId id, Blobs blobs) throws IOException {
        return id.equals(PathChange.NOTHING) ? new byte[0] : blobs.read(id);
    }

    private static FileLines lines(PathChange change, TextLines before, TextLines after) {
        List<LineDiff.Hunk> hunks = LineDiff.hunks(before, after, TextLines.Sameness.EXACT);
        List<LineRun> runs = new ArrayList<>();
        LineRun went = run(
                before,
                hunks.stream()
                        .filter(hunk -> hunk.oldLines() > 0)
                        .mapToInt(LineDiff.Hunk::oldStart)
                        .toArray(),
                hunks.stream()
                        .mapToInt(LineDiff.Hunk::oldLines)
                        .filter(lines -> lines > 0)
                        .toArray(),
                false);
        LineRun came = run(
                after,
                hunks.stream()
                        .filter(hunk -> hunk.newLines() > 0)
                        .mapToInt(LineDiff.Hunk::newStart)
                        .toArray(),
                hunks.stream()
                        .mapToInt(LineDiff.Hunk::newLines)
                        .filter(lines -> lines > 0)
                        .toArray(),
                true);
        for (LineRun run : List.of(went, came)) {
            if (run.hunks().length > 0) {
                runs.add(run);
            }
        }
        return new FileLines(change, came.lines(), went.lines(), false, runs);
    }

    private static LineRun run(TextLines lines, int[] starts, int[] counts, boolean added) {
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        int[] hunks = new int[2 * starts.length];
        for (int i = 0; i < starts.length; i++) {
            hunks[2 * i] = starts[i] + 1;
            hunks[2 * i + 1] = counts[i];
            for (int line = starts[i]; line < starts[i] + counts[i]; line++) {
                text.write(lines.bytes(), lines.start(line), lines.textEnd(line) - lines.start(line));
                text.write('\n');
            }
        }
        byte[] bytes = text.toByteArray();
        return new LineRun(
                added,
                hunks,
                Utf8.isValid(bytes, 0, bytes.length)
                        ? bytes
                        : new String(bytes, StandardCharsets.ISO_8859_1).getBytes(StandardCharsets.UTF_8));
    }
}
