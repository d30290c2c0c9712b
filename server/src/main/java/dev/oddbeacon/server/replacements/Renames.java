package dev.oddbeacon.server.replacements;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Split;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/** Paths that files get; none is taken twice, none is one that Git would not have. */
final class Renames {
    private static final int LONGEST = 4_096; // bytes, of a path

    private final View view;
    private final MatchFinder finder;
    private final Choice choice;
    private final Map<Integer, Map<String, String>> taken =
            new HashMap<>(); // new paths, with the old, by branch number

    Renames(View view, MatchFinder finder, Choice choice) {
        this.view = view;
        this.finder = finder;
        this.choice = choice;
    }

    /**
     * The path that a file gets.
     *
     * @return empty if it keeps its own
     * @throws StaysException if it matches and cannot be renamed so
     */
    Optional<String> of(int branchNumber, int file) throws StaysException {
        SnapshotReader snapshot = view.snapshot(branchNumber);
        String path = snapshot.path(file);
        List<Found> matches = finder.matches(path, Optional.empty());
        String place = Choice.placeOfPath(view.branch(branchNumber).repository(), path);
        if (matches.isEmpty() || choice.leaves(place)) {
            return Optional.empty();
        }
        String renamed = choice.ownOf(place).orElseGet(() -> replaced(path, matches));
        if (renamed.equals(path)) {
            return Optional.empty();
        }
        check(renamed);
        if (isThere(snapshot, renamed)) {
            throw new StaysException("there is " + renamed + " already");
        }
        String other = taken.computeIfAbsent(branchNumber, _ -> new HashMap<>()).putIfAbsent(renamed, path);
        if (other != null) {
            throw new StaysException(other + " would be named " + renamed + " as well");
        }
        return Optional.of(renamed);
    }

    private static String replaced(String path, List<Found> matches) {
        StringBuilder renamed = new StringBuilder();
        int at = 0;
        for (Found match : matches) {
            if (match.with().isPresent()) {
                renamed.append(path, at, match.start()).append(match.with().get());
                at = match.end();
            }
        }
        return renamed.append(path.substring(at)).toString();
    }

    private static void check(String path) throws StaysException {
        boolean isWrong = path.getBytes(StandardCharsets.UTF_8).length > LONGEST
                || path.indexOf('\0') >= 0
                || Split.parts(path, '/').stream()
                        .anyMatch(part -> part.isEmpty()
                                || part.equals(".")
                                || part.equals("..")
                                || part.toLowerCase(Locale.ROOT).equals(".git"));
        if (isWrong) {
            throw new StaysException("\"" + path + "\" is no path that a file can have");
        }
    }

    /** Whether a file or a folder has that path, or a file stands where one of its folders would. */
    private static boolean isThere(SnapshotReader snapshot, String path) {
        SnapshotReader.Range below = snapshot.startingWith(path + "/");
        if (below.to() > below.from()) {
            return true;
        }
        for (int end = path.length(); end > 0; end = path.lastIndexOf('/', end - 1)) {
            OptionalInt file = snapshot.find(path.substring(0, end));
            if (file.isPresent()) {
                return true;
            }
        }
        return false;
    }
}
