package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.ObjectId;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import java.util.OptionalInt;

/**
 * Which commit made each file of a branch what it is: of those that gave it its present content, the latest. A change
 * that a merge dropped gave it another content, and so does not count.
 */
public final class LastChanges {
    private final CommitGraph graph;
    private final int[] commits; // by file; CommitGraph.UNKNOWN where the index does not know
    private final long otherwise;

    private LastChanges(CommitGraph graph, int[] commits, long otherwise) {
        this.graph = graph;
        this.commits = commits;
        this.otherwise = otherwise;
    }

    static LastChanges of(Past past, Branch branch, SnapshotReader snapshot) {
        CommitGraph graph = past.graph();
        int[] commits = new int[snapshot.count()];
        Arrays.fill(commits, CommitGraph.UNKNOWN);
        BitSet reachable = past.isEmpty() ? new BitSet() : past.reachable(ObjectId.of(branch.commit()));
        int[] newest = Arrays.stream(past.newestFirst()).filter(reachable::get).toArray();
        Map<HistoryReader, int[]> numbers =
                new HashMap<>(); // by path of a history file: the number in the snapshot, -1 for none, -2 if not looked
        // up yet
        int open = commits.length;
        for (int i = 0; i < newest.length && open > 0; i++) {
            HistoryReader file = graph.file(newest[i]);
            int[] known = numbers.computeIfAbsent(file, reader -> {
                int[] fresh = new int[reader.paths().length];
                Arrays.fill(fresh, -2);
                return fresh;
            });
            HistoryReader.Changes changes = file.changes().of(graph.row(newest[i]));
            while (changes.next()) {
                int path = changes.path();
                if (known[path] == -2) {
                    OptionalInt found = snapshot.find(file.paths()[path]);
                    known[path] = found.orElse(-1);
                }
                int number = known[path];
                if (number >= 0
                        && commits[number] == CommitGraph.UNKNOWN
                        && changes.blob() == (int) (snapshot.id(number).high() >>> 32)) {
                    commits[number] = newest[i];
                    open--;
                }
            }
        }
        return new LastChanges(graph, commits, branch.committed().getEpochSecond());
    }

    /**
     * When a file was committed last, in seconds since 1970; the branch's last commit where the index does not know.
     */
    public long seconds(int file) {
        return commits[file] == CommitGraph.UNKNOWN ? otherwise : graph.committedSeconds(commits[file]);
    }

    /** The commit that made a file what it is, or {@link CommitGraph#UNKNOWN}. */
    public int commit(int file) {
        return commits[file];
    }

    public boolean isKnown(int file) {
        return commits[file] != CommitGraph.UNKNOWN;
    }
}
