package dev.oddbeacon.core.history;

import dev.oddbeacon.core.segment.ObjectId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.List;

/**
 * The commits of a repository and how they follow each other, in memory. A commit has a number: that of its file's
 * first one plus its number in the file. Immutable.
 */
public final class CommitGraph {
    /** Stands for the number of a parent that the index lacks. */
    public static final int UNKNOWN = -1;

    private final List<HistoryReader> files;
    private final int[] bases; // number of the first commit of each file, and of none
    private final int[] parentStarts;
    private final int[] parents;
    private volatile int[][] children; // made when it is first asked for: where those of each start, and all

    public CommitGraph(List<HistoryReader> files) {
        this.files = List.copyOf(files);
        this.bases = new int[files.size() + 1];
        for (int i = 0; i < files.size(); i++) {
            bases[i + 1] = bases[i] + files.get(i).commitCount();
        }
        this.parentStarts = new int[count() + 1];
        int[] found = new int[count() + 16];
        int filled = 0;
        for (int commit = 0; commit < count(); commit++) {
            for (ObjectId parent : file(commit).parents(row(commit))) {
                if (filled == found.length) {
                    found = Arrays.copyOf(found, found.length * 2);
                }
                found[filled++] = find(parent);
            }
            parentStarts[commit + 1] = filled;
        }
        this.parents = Arrays.copyOf(found, filled);
    }

    public List<HistoryReader> files() {
        return files;
    }

    public int count() {
        return bases[files.size()];
    }

    private int fileNumber(int commit) {
        int at = Arrays.binarySearch(bases, 0, files.size(), commit);
        return at >= 0 ? at : -at - 2;
    }

    public HistoryReader file(int commit) {
        return files.get(fileNumber(commit));
    }

    /** The number of a commit in its file. */
    public int row(int commit) {
        return commit - bases[fileNumber(commit)];
    }

    /** The number of the first commit of a file. */
    public int base(int file) {
        return bases[file];
    }

    /** The number of a commit, or {@link #UNKNOWN}. */
    public int find(ObjectId id) {
        for (int i = 0; i < files.size(); i++) {
            int row = files.get(i).find(id);
            if (row >= 0) {
                return bases[i] + row;
            }
        }
        return UNKNOWN;
    }

    public ObjectId id(int commit) {
        return file(commit).id(row(commit));
    }

    public long committedSeconds(int commit) {
        return file(commit).committedSeconds(row(commit));
    }

    public int parentCount(int commit) {
        return parentStarts[commit + 1] - parentStarts[commit];
    }

    /** The number of a parent, or {@link #UNKNOWN}. */
    public int parent(int commit, int index) {
        return parents[parentStarts[commit] + index];
    }

    public Commit commit(int commit) {
        return file(commit).commit(row(commit));
    }

    /** Some commits and all before them. */
    public BitSet reachable(Collection<Integer> tips) {
        BitSet reached = new BitSet(count());
        int[] open = new int[64];
        int size = 0;
        for (int tip : tips) {
            if (tip != UNKNOWN && !reached.get(tip)) {
                reached.set(tip);
                open = size == open.length ? Arrays.copyOf(open, size * 2) : open;
                open[size++] = tip;
            }
        }
        while (size > 0) {
            int commit = open[--size];
            for (int i = parentStarts[commit]; i < parentStarts[commit + 1]; i++) {
                if (parents[i] != UNKNOWN && !reached.get(parents[i])) {
                    reached.set(parents[i]);
                    open = size == open.length ? Arrays.copyOf(open, size * 2) : open;
                    open[size++] = parents[i];
                }
            }
        }
        return reached;
    }

    /** A commit and all after it. */
    public BitSet descendants(int commit) {
        int[][] down = children();
        BitSet reached = new BitSet(count());
        reached.set(commit);
        List<Integer> open = new ArrayList<>(List.of(commit));
        while (!open.isEmpty()) {
            int next = open.removeLast();
            for (int i = down[0][next]; i < down[0][next + 1]; i++) {
                if (!reached.get(down[1][i])) {
                    reached.set(down[1][i]);
                    open.add(down[1][i]);
                }
            }
        }
        return reached;
    }

    private int[][] children() {
        if (children == null) {
            int[] starts = new int[count() + 2];
            for (int parent : parents) {
                starts[parent + 2] += parent == UNKNOWN ? 0 : 1;
            }
            Arrays.parallelPrefix(starts, Integer::sum);
            int[] all = new int[parents.length];
            for (int commit = 0; commit < count(); commit++) {
                for (int i = parentStarts[commit]; i < parentStarts[commit + 1]; i++) {
                    if (parents[i] != UNKNOWN) {
                        all[starts[parents[i] + 1]++] = commit;
                    }
                }
            }
            children = new int[][] {starts, all};
        }
        return children;
    }

    /** The longest way from each commit to one without known parents; a commit has a greater one than its parents. */
    int[] depths() {
        int[][] down = children();
        int[] depths = new int[count()];
        int[] waiting = new int[count()]; // parents whose own depth is not settled
        int[] settled = new int[count()];
        int size = 0;
        for (int commit = 0; commit < count(); commit++) {
            for (int i = parentStarts[commit]; i < parentStarts[commit + 1]; i++) {
                waiting[commit] += parents[i] == UNKNOWN ? 0 : 1;
            }
            if (waiting[commit] == 0) {
                settled[size++] = commit;
            }
        }
        for (int next = 0; next < size; next++) {
            int commit = settled[next];
            for (int i = down[0][commit]; i < down[0][commit + 1]; i++) {
                int child = down[1][i];
                depths[child] = Math.max(depths[child], depths[commit] + 1);
                if (--waiting[child] == 0) {
                    settled[size++] = child;
                }
            }
        }
        return depths;
    }

    /** Counts the commits, among some, with a parent that the index lacks. */
    public int open(BitSet commits) {
        int open = 0;
        for (int commit = commits.nextSetBit(0); commit >= 0; commit = commits.nextSetBit(commit + 1)) {
            for (int i = parentStarts[commit]; i < parentStarts[commit + 1]; i++) {
                open += parents[i] == UNKNOWN ? 1 : 0;
            }
        }
        return open;
    }
}
