package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.LineRun;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SizeClasses;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Makes one history file of several small ones of a repository, so that many pushes do not leave many files. */
public final class HistoryMerge {
    private static final long LARGEST = 256L << 20;

    private HistoryMerge() {}

    /** Says which commits of a file are still reached from a branch. */
    @FunctionalInterface
    public interface Wanted {
        boolean isWanted(HistoryReader file, int commit);
    }

    /** The files of one repository that should become one now; none if there are few of a size. */
    public static List<HistoryReader> due(List<HistoryReader> files) {
        Map<Integer, List<HistoryReader>> classes = new TreeMap<>();
        for (HistoryReader file : files) {
            if (file.size() * SizeClasses.FAN_IN <= LARGEST) {
                classes.computeIfAbsent(SizeClasses.of(file.size()), _ -> new ArrayList<>())
                        .add(file);
            }
        }
        return classes.values().stream()
                .filter(members -> members.size() >= SizeClasses.FAN_IN)
                .findFirst()
                .orElse(List.of());
    }

    /**
     * Writes the wanted commits of several files into a new one.
     *
     * @return whether there were any; else no file is left
     */
    public static boolean write(List<HistoryReader> files, Wanted wanted, Path target) throws IOException {
        try (HistoryWriter writer = new HistoryWriter(target)) {
            for (HistoryReader file : files) {
                copy(file, wanted, writer);
            }
            if (writer.commits() == 0) {
                return false;
            }
            writer.finish();
            return true;
        }
    }

    private static void copy(HistoryReader file, Wanted wanted, HistoryWriter writer) {
        int block = 0;
        LineBlock lines = null;
        int run = 0;
        for (int commit = 0; commit < file.commitCount(); commit++) {
            Map<Integer, List<LineRun>> runs = new HashMap<>();
            while (block < file.lineBlockCount()) {
                lines = lines == null ? file.lines(block) : lines;
                while (run < lines.runs() && lines.commit(run) == commit) {
                    runs.computeIfAbsent(lines.change(run), _ -> new ArrayList<>())
                            .add(lines.run(run++));
                }
                if (run < lines.runs()) {
                    break;
                }
                block++;
                lines = null;
                run = 0;
            }
            if (wanted.isWanted(file, commit)) {
                writer.add(changes(file, commit, runs));
            }
        }
    }

    private static CommitChanges changes(HistoryReader file, int commit, Map<Integer, List<LineRun>> runs) {
        HistoryReader.Changes change = file.changes().of(commit);
        List<CommitChanges.FileLines> lines = new ArrayList<>();
        while (change.next()) {
            String path = file.paths()[change.path()];
            PathChange told = new PathChange(
                    path,
                    file.paths()[change.from()],
                    change.kind(),
                    PathChange.NOTHING,
                    new ObjectId((long) change.blob() << 32, 0, 0),
                    PathChange.FILE,
                    PathChange.FILE);
            lines.add(new CommitChanges.FileLines(
                    told,
                    change.added(),
                    change.removed(),
                    change.binary(),
                    runs.getOrDefault(lines.size(), List.of())));
        }
        return new CommitChanges(file.commit(commit), lines, file.isWhole(commit));
    }
}
