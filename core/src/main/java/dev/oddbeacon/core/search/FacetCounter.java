package dev.oddbeacon.core.search;

import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Facets.Spread;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Trait;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;

/**
 * Adds up files and hits by repository, type, trait and folder. Folders are those below the deepest one that all files
 * share.
 */
public final class FacetCounter {
    private static final int MOST = 50;
    private static final int MOST_SPREAD = 40;

    private final View view;
    private final Map<String, long[]> repositories = new HashMap<>();
    private final Map<String, long[]> types = new HashMap<>();
    private final Map<String, long[]> traits = new HashMap<>();
    private final Map<String, Map<String, long[]>> fileFolders = new HashMap<>(); // by repository and whole folder

    private final boolean tellsFolders;

    public FacetCounter(View view) {
        this(view, true);
    }

    /** @param tellsFolders whether folders are counted: paths have to be read for it */
    public FacetCounter(View view, boolean tellsFolders) {
        this.view = view;
        this.tellsFolders = tellsFolders;
    }

    public void add(long place, int hits) {
        int branchNumber = (int) (place >>> 32);
        int file = (int) place;
        SnapshotReader snapshot = view.snapshot(branchNumber);
        add(repositories, view.branch(branchNumber).repository(), 1, hits);
        add(types, snapshot.type(file), 1, hits);
        for (int bits = snapshot.traits(file); bits != 0; bits &= bits - 1) {
            add(traits, Trait.of(Integer.numberOfTrailingZeros(bits)).label(), 1, hits);
        }
        if (!tellsFolders) {
            return;
        }
        String path = snapshot.path(file);
        int slash = path.lastIndexOf('/');
        add(
                fileFolders.computeIfAbsent(view.branch(branchNumber).repository(), _ -> new HashMap<>()),
                slash < 0 ? "" : path.substring(0, slash),
                1,
                hits);
    }

    private static void add(Map<String, long[]> counts, String value, long files, long hits) {
        long[] count = counts.computeIfAbsent(value, _ -> new long[2]);
        count[0] += files;
        count[1] += hits;
    }

    public int repositories() {
        return repositories.size();
    }

    public Facets facets() {
        Map<String, long[]> all = new HashMap<>();
        fileFolders
                .values()
                .forEach(folders -> folders.forEach((folder, count) -> add(all, folder, count[0], count[1])));
        return new Facets(
                shares(repositories), shares(types), shares(traits), shares(firstFolders(all, false)), spread());
    }

    /**
     * Where most hits are. Repositories are looked at from the one with the most hits on: when all of one are fewer than
     * what is in the last place, so are those of all that follow.
     */
    private List<Spread> spread() {
        First<Spread> first = new First<>(
                MOST_SPREAD,
                Comparator.comparingLong(Spread::hits)
                        .thenComparingInt(Spread::files)
                        .reversed()
                        .thenComparing(Spread::repository)
                        .thenComparing(Spread::folder));
        List<Map.Entry<String, long[]>> byHits = new ArrayList<>(repositories.entrySet());
        byHits.sort(Comparator.comparingLong(entry -> -entry.getValue()[1]));
        for (Map.Entry<String, long[]> entry : byHits) {
            if (first.isFull() && entry.getValue()[1] < first.last().hits()) {
                break;
            }
            firstFolders(fileFolders.getOrDefault(entry.getKey(), Map.of()), true)
                    .forEach(
                            (folder, count) -> first.add(new Spread(entry.getKey(), folder, (int) count[0], count[1])));
        }
        return first.inOrder();
    }

    /** The first few of many, without putting all in order. */
    private static final class First<T> {
        private final int most;
        private final Comparator<T> order;
        private final PriorityQueue<T> kept; // the last of them first

        First(int most, Comparator<T> order) {
            this.most = most;
            this.order = order;
            this.kept = new PriorityQueue<>(order.reversed());
        }

        void add(T one) {
            if (kept.size() < most) {
                kept.add(one);
            } else if (order.compare(one, kept.peek()) < 0) {
                kept.poll();
                kept.add(one);
            }
        }

        boolean isFull() {
            return kept.size() == most;
        }

        T last() {
            return kept.peek();
        }

        List<T> inOrder() {
            return kept.stream().sorted(order).toList();
        }
    }

    /**
     * Counts by the folders in which paths part for the first time; those of files above are told under no folder, if
     * at all.
     */
    private static Map<String, long[]> firstFolders(Map<String, long[]> counts, boolean tellsOthers) {
        String shared =
                counts.keySet().stream().reduce(FacetCounter::sharedFolder).orElse("");
        int depth = shared.isEmpty() ? 0 : shared.length() + 1;
        Map<String, long[]> folders = new HashMap<>();
        counts.forEach((folder, count) -> {
            if (folder.length() > depth) {
                int end = folder.indexOf('/', depth);
                add(folders, "/" + (end < 0 ? folder : folder.substring(0, end)), count[0], count[1]);
            } else if (tellsOthers) {
                add(folders, shared.isEmpty() ? "" : "/" + shared, count[0], count[1]);
            }
        });
        return folders;
    }

    private static String sharedFolder(String a, String b) {
        int slash = 0;
        int i = 0;
        while (i < a.length() && i < b.length() && a.charAt(i) == b.charAt(i)) {
            if (a.charAt(i) == '/') {
                slash = i;
            }
            i++;
        }
        boolean aEnds = i == a.length() && (i == b.length() || b.charAt(i) == '/');
        boolean bEnds = i == b.length() && i < a.length() && a.charAt(i) == '/';
        return aEnds || bEnds ? a.substring(0, i) : a.substring(0, slash);
    }

    private static List<Share> shares(Map<String, long[]> counts) {
        First<Share> first = new First<>(
                MOST,
                Comparator.comparingLong(Share::hits)
                        .thenComparingInt(Share::files)
                        .reversed()
                        .thenComparing(Share::value));
        counts.forEach((value, count) -> first.add(new Share(value, (int) count[0], count[1])));
        return first.inOrder();
    }
}
