package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/** Go: a package is a folder; its path is that of the module, which the next {@code go.mod} above tells, and the way from there. */
final class GoModules implements Modules {
    private static final int MOST_KEPT = 50_000;
    private static final String OWN_LIBRARY = "std";
    private static final String VENDORED = "vendor/";

    private final Types types;
    private final View view;
    private final Map<Long, String> folders = new HashMap<>();
    private final Map<String, Optional<String>> paths = new HashMap<>();

    GoModules(Types types) {
        this.types = types;
        this.view = types.view();
    }

    @Override
    public boolean isOwn(CodeFile file, Spot spot) {
        return file.branchNumber() == spot.branchNumber()
                && folder(file.branchNumber(), file.file()).equals(folder(spot.branchNumber(), spot.file()));
    }

    @Override
    public List<Spot> own(CodeFile file, String name) {
        return types.outermost(file.language(), name).stream()
                .filter(spot -> isOwn(file, spot))
                .toList();
    }

    @Override
    public List<Spot> in(CodeFile file, String from, String name) {
        List<Spot> nearest = new ArrayList<>();
        int most = 1;
        for (Spot spot : types.outermost(file.language(), name)) {
            int near = nearness(file, from, spot);
            if (near > most) {
                nearest.clear();
                most = near;
            }
            if (near == most) {
                nearest.add(spot);
            }
        }
        return types.ofOwnBranch(nearest);
    }

    /** How near something is to what an import says; 0 if it is not there. */
    private int nearness(CodeFile file, String from, Spot spot) {
        int branch = spot.branchNumber();
        String folder = folder(branch, spot.file());
        int vendor = folder.startsWith(VENDORED) ? 0 : folder.indexOf("/" + VENDORED) + 1;
        if (vendor > 0 || folder.startsWith(VENDORED)) {
            return branch == file.branchNumber() && folder.endsWith(VENDORED + from) ? 3 : 0;
        }
        Optional<String> path = paths.computeIfAbsent(branch + " " + folder, _ -> path(branch, folder));
        if (path.isPresent()) {
            return path.get().equals(from) ? 2 : 0;
        }
        if (folder.isEmpty()) {
            String repository = view.branch(branch).repository();
            return last(from).equals(last(repository)) ? 1 : 0;
        }
        return from.equals(folder) || from.endsWith("/" + folder) || folder.endsWith("/" + from) ? 1 : 0;
    }

    private String folder(int branch, int file) {
        if (folders.size() > MOST_KEPT) {
            folders.clear();
        }
        return folders.computeIfAbsent((long) branch << 32 | file, _ -> {
            String path = view.snapshot(branch).path(file);
            return path.substring(0, Math.max(0, path.lastIndexOf('/')));
        });
    }

    private static String last(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    /** The path by which a folder is imported; empty if no module says. */
    private Optional<String> path(int branch, String folder) {
        String above = folder;
        Optional<String> module = module(branch, above);
        while (module.isEmpty() && !above.isEmpty()) {
            above = above.substring(0, Math.max(0, above.lastIndexOf('/')));
            module = module(branch, above);
        }
        String rest = folder.substring(above.length());
        String way = above.isEmpty() && !rest.isEmpty() ? "/" + rest : rest;
        // the language's own library is imported without the name of its module
        return module.map(one -> one.equals(OWN_LIBRARY) && !way.isEmpty() ? way.substring(1) : one + way);
    }

    /** The path that the module of a folder says. */
    private Optional<String> module(int branch, String folder) {
        OptionalInt file = view.snapshot(branch).find(folder.isEmpty() ? "go.mod" : folder + "/go.mod");
        return file.isEmpty()
                ? Optional.empty()
                : view.location(branch, file.getAsInt()).flatMap(location -> {
                    SegmentReader segment = location.segment();
                    String text = Utf8.string(
                            segment.content(), segment.start(location.blob()), segment.end(location.blob()));
                    return text.lines()
                            .map(String::strip)
                            .filter(line -> line.startsWith("module "))
                            .map(line -> line.substring("module ".length()).strip())
                            .findFirst();
                });
    }
}
