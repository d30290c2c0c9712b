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
        FacetCounts.add(repositories, view.branch(branchNumber).repository(), 1, hits);
        FacetCounts.add(types, snapshot.type(file), 1, hits);
        for (int bits = snapshot.traits(file); bits != 0; bits &= bits - 1) {
            FacetCounts.add(
                    traits, Trait.of(Integer.numberOfTrailingZeros(bits)).label(), 1, hits);
        }
        if (!tellsFolders) {
            return;
        }
        String path = snapshot.path(file);
        int slash = path.lastIndexOf('/');
        FacetCounts.add(
                fileFolders.computeIfAbsent(view.branch(branchNumber).repository(), _ -> new HashMap<>()),
                slash < 0 ? "" : path.substring(0, slash),
                1,
                hits);
    }

    public FacetCounts counts() {
        Map<String, long[]> all = new HashMap<>();
        fileFolders
                .values()
                .forEach(folders ->
                        folders.forEach((folder, count) -> FacetCounts.add(all, folder, count[0], count[1])));
        String shared = shared(all);
        long[] sum = new long[2];
        repositories.values().forEach(count -> {
            sum[0] += count[0];
            sum[1] += count[1];
        });
        return new FacetCounts(
                repositories.size(),
                FacetCounts.shares(repositories),
                FacetCounts.shares(types),
                FacetCounts.shares(traits),
                shared,
                FacetCounts.shares(firstFolders(all, shared, false)),
                new Share("", (int) sum[0], sum[1]),
                spread());
    }

    /**
     * Where most hits are. Repositories are looked at from the one with the most hits on: when all of one are fewer than
     * what is in the last place, so are those of all that follow.
     */
    private List<Spread> spread() {
        FacetCounts.First<Spread> first = new FacetCounts.First<>(FacetCounts.MOST_SPREAD, FacetCounts.MOST_HITS_THERE);
        List<Map.Entry<String, long[]>> byHits = new ArrayList<>(repositories.entrySet());
        byHits.sort(Comparator.comparingLong(entry -> -entry.getValue()[1]));
        for (Map.Entry<String, long[]> entry : byHits) {
            if (first.isFull() && entry.getValue()[1] < first.last().hits()) {
                break;
            }
            Map<String, long[]> folders = fileFolders.getOrDefault(entry.getKey(), Map.of());
            firstFolders(folders, shared(folders), true)
                    .forEach(
                            (folder, count) -> first.add(new Spread(entry.getKey(), folder, (int) count[0], count[1])));
        }
        return first.inOrder();
    }

    private static String shared(Map<String, long[]> folders) {
        return folders.keySet().stream().reduce(FacetCounts::sharedFolder).orElse("");
    }

    /**
     * Counts by the folders in which paths part for the first time; those of files above are told under no folder, if
     * at all.
     */
    private static Map<String, long[]> firstFolders(Map<String, long[]> counts, String shared, boolean tellsOthers) {
        Map<String, long[]> folders = new HashMap<>();
        counts.forEach((folder, count) -> {
            if (folder.length() > shared.length()) {
                FacetCounts.add(folders, FacetCounts.folderBelow(shared, folder), count[0], count[1]);
            } else if (tellsOthers) {
                FacetCounts.add(folders, shared.isEmpty() ? "" : "/" + shared, count[0], count[1]);
            }
        });
        return folders;
    }
}
