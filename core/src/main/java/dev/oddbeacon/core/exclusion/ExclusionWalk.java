package dev.oddbeacon.core.exclusion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Decides one file after another, in the order of their paths, so that a folder is decided once, for all below it.
 * Names and endings are looked up; of the anchored patterns a folder keeps those that may still match below it.
 */
public final class ExclusionWalk {
    private static final int NONE = -1;

    /**
     * Which pattern decided a file.
     *
     * @param pattern its index; -1 if none matches
     * @param folder the folder that it matched, empty if it matched the file itself
     */
    public record Charge(int pattern, String folder, boolean isOut) {
        static final Charge KEPT = new Charge(NONE, "", false);
    }

    /** Receives each file. */
    public interface Visitor {
        void visit(int file, String path, Charge charge);
    }

    /** A folder on the way to the current file. */
    private record Folder(String path, Charge charge, int[] anchored) {}

    private final List<ExclusionPattern> patterns;
    private final Visitor visitor;
    private final Map<String, Integer> names = new HashMap<>(); // the last pattern for a whole name of a file or folder
    private final Map<String, Integer> folderNames = new HashMap<>();
    private final Map<String, Integer> endings = new HashMap<>(); // by what follows the star, which is a dot and more
    private final int[] others; // name patterns that must be tried, the last first
    private final Charge[] fileCharges;
    private final List<Folder> folders = new ArrayList<>();

    ExclusionWalk(List<ExclusionPattern> patterns, Visitor visitor) {
        this.patterns = patterns;
        this.visitor = visitor;
        List<Integer> rest = new ArrayList<>();
        List<Integer> anchored = new ArrayList<>();
        for (int i = patterns.size() - 1; i >= 0; i--) {
            ExclusionPattern pattern = patterns.get(i);
            String glob = pattern.glob().toString();
            boolean isEnding = glob.startsWith("*.") && isLiteral(glob.substring(1));
            if (pattern.anchored()) {
                anchored.add(i);
            } else if (isLiteral(glob)) {
                (pattern.foldersOnly() ? folderNames : names).putIfAbsent(glob, i);
            } else if (isEnding && !pattern.foldersOnly()) {
                endings.putIfAbsent(glob.substring(1), i);
            } else {
                rest.add(i);
            }
        }
        others = rest.stream().mapToInt(Integer::intValue).toArray();
        fileCharges = new Charge[patterns.size()];
        for (int i = 0; i < fileCharges.length; i++) {
            fileCharges[i] = new Charge(i, "", !patterns.get(i).bringsBack());
        }
        folders.add(new Folder(
                "", Charge.KEPT, anchored.stream().mapToInt(Integer::intValue).toArray()));
    }

    private static boolean isLiteral(String glob) {
        return glob.chars().noneMatch(c -> c == '*' || c == '?' || c == '[' || c == '\\');
    }

    /** Decides a file, whose path comes after those of all files before. */
    public void visit(int file, String path) {
        while (!isBelow(path, folders.getLast().path)) {
            folders.removeLast();
        }
        int from = folders.getLast().path.isEmpty() ? 0 : folders.getLast().path.length() + 1;
        for (int slash = path.indexOf('/', from); slash >= 0; slash = path.indexOf('/', slash + 1)) {
            enter(path.substring(0, slash));
        }
        Folder folder = folders.getLast();
        if (folder.charge.isOut) {
            visitor.visit(file, path, folder.charge);
            return;
        }
        int decided = decide(path, folder.anchored, false);
        visitor.visit(file, path, decided == NONE ? folder.charge : fileCharges[decided]);
    }

    private static boolean isBelow(String path, String folder) {
        return folder.isEmpty()
                || path.length() > folder.length() && path.charAt(folder.length()) == '/' && path.startsWith(folder);
    }

    private void enter(String path) {
        Folder above = folders.getLast();
        if (above.charge.isOut) {
            folders.add(new Folder(path, above.charge, above.anchored));
            return;
        }
        int decided = decide(path, above.anchored, true);
        Charge charge = decided == NONE
                ? above.charge
                : new Charge(decided, path, !patterns.get(decided).bringsBack());
        folders.add(new Folder(path, charge, below(path, above.anchored)));
    }

    /** The anchored patterns, among some, that may match below a folder. */
    private int[] below(String folder, int[] anchored) {
        int[] kept = new int[anchored.length];
        int count = 0;
        for (int index : anchored) {
            String start = patterns.get(index).glob().start();
            boolean fits = start.length() <= folder.length()
                    ? folder.startsWith(start)
                    : start.startsWith(folder) && start.charAt(folder.length()) == '/';
            if (fits) {
                kept[count++] = index;
            }
        }
        return count == anchored.length ? anchored : Arrays.copyOf(kept, count);
    }

    /** The last pattern that matches a file or folder itself. */
    private int decide(String path, int[] anchored, boolean isFolder) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        int best = names.getOrDefault(name, NONE);
        if (isFolder) {
            best = Math.max(best, folderNames.getOrDefault(name, NONE));
        }
        for (int dot = endings.isEmpty() ? -1 : name.indexOf('.'); dot >= 0; dot = name.indexOf('.', dot + 1)) {
            best = Math.max(best, endings.getOrDefault(name.substring(dot), NONE));
        }
        best = last(others, best, path, name, isFolder);
        return last(anchored, best, path, name, isFolder);
    }

    private int last(int[] candidates, int best, String path, String name, boolean isFolder) {
        for (int index : candidates) {
            if (index <= best) {
                return best;
            }
            if (patterns.get(index).matches(path, name, isFolder)) {
                return index;
            }
        }
        return best;
    }
}
