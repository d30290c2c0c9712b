package dev.oddbeacon.core.history;

import dev.oddbeacon.core.segment.ObjectId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;

/** The past of one repository, as far as the index knows it. Any number of threads may read. */
public final class Past {
    public static final Past NONE = new Past(List.of());

    private final CommitGraph graph;
    private volatile int[] newestFirst;
    private final Map<ObjectId, BitSet> reachable = new ConcurrentHashMap<>();

    public Past(List<HistoryReader> files) {
        this.graph = new CommitGraph(files);
    }

    public CommitGraph graph() {
        return graph;
    }

    public boolean isEmpty() {
        return graph.count() == 0;
    }

    /** The commits before one, and itself; none if the index does not have it. Never changed. */
    public BitSet reachable(ObjectId tip) {
        return reachable.computeIfAbsent(tip, id -> graph.reachable(List.of(graph.find(id))));
    }

    /**
     * All commits, those that were committed last first, of the same second children before their parents. Never
     * changed.
     */
    public int[] newestFirst() {
        if (newestFirst == null) {
            int[] depths = graph.depths();
            long[][] dated = new long[graph.count()][];
            for (int commit = 0; commit < dated.length; commit++) {
                dated[commit] = new long[] {-graph.committedSeconds(commit), -depths[commit], commit};
            }
            Arrays.sort(dated, Arrays::compare);
            newestFirst = Arrays.stream(dated).mapToInt(pair -> (int) pair[2]).toArray();
        }
        return newestFirst;
    }

    /** For each file of the past, the wanted ones among its paths. */
    public List<BitSet> paths(Predicate<String> wanted) {
        List<BitSet> result = new ArrayList<>();
        for (HistoryReader file : graph.files()) {
            BitSet known = new BitSet(file.paths().length);
            for (int path = 0; path < file.paths().length; path++) {
                known.set(path, wanted.test(file.paths()[path]));
            }
            result.add(known);
        }
        return result;
    }

    /** The commits, among some, that changed a file at one of these paths or moved one away from it. */
    public BitSet touching(BitSet among, Predicate<String> wanted) {
        return touching(among, paths(wanted));
    }

    /** The same with paths as {@link #paths} tells them. */
    public BitSet touching(BitSet among, List<BitSet> wanted) {
        BitSet found = new BitSet();
        for (int number = 0; number < graph.files().size(); number++) {
            HistoryReader file = graph.files().get(number);
            BitSet known = wanted.get(number);
            HistoryReader.Changes changes = file.changes();
            int base = graph.base(number);
            for (int commit = known.isEmpty() ? -1 : among.nextSetBit(base);
                    commit >= 0 && commit < graph.base(number + 1);
                    commit = among.nextSetBit(commit + 1)) {
                changes.of(commit - base);
                while (changes.next()) {
                    if (known.get(changes.path()) || known.get(changes.from())) {
                        found.set(commit);
                        break;
                    }
                }
            }
        }
        return found;
    }

    /** The ids that begin with some hexadecimal digits, at most a few. */
    public List<ObjectId> beginningWith(String digits, int most) {
        List<ObjectId> found = new ArrayList<>();
        for (HistoryReader file : graph.files()) {
            found.addAll(file.beginningWith(digits, most));
        }
        return found.subList(0, Math.min(most, found.size()));
    }

    /** Bytes of its files. */
    public long size() {
        return graph.files().stream().mapToLong(HistoryReader::size).sum();
    }
}
