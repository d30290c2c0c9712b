package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.core.text.Split;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * For a folder that is named in a scope and does not exist: those that are named alike. A name without a slash is held
 * against the last part of each folder's path, one with a slash against the whole.
 */
final class NearestFolders {
    private static final int MOST = 2;
    private static final int LONGEST = 200;

    private NearestFolders() {}

    /**
     * @return folders, the nearest first; none if what is named exists on a default branch, or is a pattern with
     * wildcards
     */
    static List<String> of(View view, String named) {
        if (named.length() > LONGEST || named.codePoints().anyMatch(c -> "*?[".indexOf(c) >= 0)) {
            return List.of();
        }
        Glob wanted = Glob.ofPath(named);
        String folder = Split.strip(named, '/').toLowerCase(Locale.ROOT);
        boolean isWhole = folder.contains("/");
        Set<String> folders = new HashSet<>();
        boolean[] exists = {false};
        for (int branchNumber = 0; branchNumber < view.branches().size(); branchNumber++) {
            if (view.branch(branchNumber).isDefault()) {
                SnapshotReader snapshot = view.snapshot(branchNumber);
                String[] before = {""};
                snapshot.forEachPath((path, _) -> {
                    String parent = path.substring(0, Math.max(0, path.lastIndexOf('/')));
                    if (!parent.equals(before[0])) {
                        before[0] = parent;
                        for (int end = parent.length();
                                end > 0 && folders.add(parent.substring(0, end));
                                end = parent.lastIndexOf('/', end - 1)) {}
                        exists[0] |= wanted.matches(path);
                    } else if (!exists[0]) {
                        exists[0] = wanted.matches(path);
                    }
                });
            }
        }
        if (exists[0] || folder.isEmpty()) {
            return List.of();
        }
        record Near(String folder, int edits) {}
        return folders.stream()
                .map(path -> new Near(
                        path,
                        EditDistance.of(
                                folder,
                                (isWhole ? path : path.substring(path.lastIndexOf('/') + 1)).toLowerCase(Locale.ROOT))))
                .filter(near -> near.edits <= Math.max(1, folder.length() / 3))
                .sorted(Comparator.comparingInt(Near::edits).thenComparing(Near::folder))
                .limit(MOST)
                .map(Near::folder)
                .toList();
    }
}
