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
        List<Spread> spread = new ArrayList<>();
        fileFolders.forEach((repository, folders) -> {
            folders.forEach((folder, count) -> add(all, folder, count[0], count[1]));
            firstFolders(folders, true)
                    .forEach((folder, count) -> spread.add(new Spread(repository, folder, (int) count[0], count[1])));
        });
        spread.sort(Comparator.comparingLong(Spread::hits)
                .thenComparingInt(Spread::files)
                .reversed()
                .thenComparing(Spread::repository)
                .thenComparing(Spread::folder));
        return new Facets(
                shares(repositories),
                shares(types),
                shares(traits),
                shares(firstFolders(all, false)),
                List.copyOf(spread.subList(0, Math.min(MOST_SPREAD, spread.size()))));
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
        return counts.entrySet().stream()
                .map(entry -> new Share(entry.getKey(), (int) entry.getValue()[0], entry.getValue()[1]))
                .sorted(Comparator.comparingLong(Share::hits)
                        .thenComparingInt(Share::files)
                        .reversed()
                        .thenComparing(Share::value))
                .limit(MOST)
                .toList();
    }
}
