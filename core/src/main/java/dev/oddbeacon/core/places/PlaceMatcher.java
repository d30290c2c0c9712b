package dev.oddbeacon.core.places;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Finds the indexed files that places mean. A text names a file as its own machine knows it:
 * {@code /builds/7/berth-planner/src/Planner.java}, or only {@code Planner.java}. The files whose paths agree with it
 * on the most folders from the end are meant; the name of the repository counts as the first folder. Where the text
 * names more than a file's name, one that agrees on the name alone is a guess only.
 */
public final class PlaceMatcher {
    private static final int MOST_CANDIDATES = 20;

    private PlaceMatcher() {}

    /** A file that is meant. @param agrees how many parts of its path, from the end, the text names */
    public record Candidate(int branchNumber, int file, String path, int agrees) {}

    /**
     * A place with its files, the likeliest first.
     *
     * @param isGuess whether the text names folders that none of them lies in
     */
    public record Matched(Place place, List<Candidate> candidates, boolean isGuess) {}

    public static List<Matched> match(SearchContext context, Scope scope, List<Place> places) {
        View view = context.view();
        Limits limits = context.limits(CompiledQuery.of(scope.query(), CaseMode.AUTO));
        Map<String, List<Candidate>> byName = new HashMap<>();
        places.forEach(place -> byName.putIfAbsent(last(parts(place.path())), new ArrayList<>()));
        Limits.Files held = limits.files();
        for (int branchNumber = 0; branchNumber < view.branches().size(); branchNumber++) {
            context.budget().demand();
            if (limits.holdsBranch(branchNumber)) {
                int branch = branchNumber;
                SnapshotReader snapshot = view.snapshot(branchNumber);
                snapshot.forEachPath((path, file) -> {
                    List<Candidate> found = byName.get(path.substring(path.lastIndexOf('/') + 1));
                    if (found != null && held.hold(branch, file, path)) {
                        found.add(new Candidate(branch, file, path, 0));
                    }
                });
            }
        }
        Map<String, Matched> byPath = new LinkedHashMap<>();
        List<Matched> matched = new ArrayList<>();
        for (Place place : places) {
            context.budget().demand();
            Matched known = byPath.computeIfAbsent(
                    place.path(), _ -> likeliest(view, place, byName.get(last(parts(place.path())))));
            matched.add(new Matched(place, known.candidates, known.isGuess));
        }
        return matched;
    }

    private static Matched likeliest(View view, Place place, List<Candidate> named) {
        String[] wanted = parts(place.path());
        List<Candidate> candidates = named.stream()
                .map(candidate -> new Candidate(
                        candidate.branchNumber,
                        candidate.file,
                        candidate.path,
                        agreement(
                                wanted,
                                parts(view.branch(candidate.branchNumber).repository() + "/" + candidate.path))))
                .toList();
        int most = candidates.stream().mapToInt(Candidate::agrees).max().orElse(0);
        List<Candidate> best = candidates.stream()
                .filter(candidate -> candidate.agrees == most)
                .sorted(Comparator.comparingInt((Candidate candidate) -> parts(candidate.path).length)
                        .thenComparingInt(Candidate::branchNumber)
                        .thenComparingInt(Candidate::file))
                .limit(MOST_CANDIDATES)
                .toList();
        boolean isWhole = best.stream()
                .anyMatch(candidate ->
                        most >= parts(candidate.path).length); // the whole path agrees, whatever stands before it
        return new Matched(place, best, wanted.length > most && most == 1 && !isWhole);
    }

    private static int agreement(String[] wanted, String[] path) {
        int same = 0;
        while (same < Math.min(wanted.length, path.length)
                && wanted[wanted.length - 1 - same].equals(path[path.length - 1 - same])) {
            same++;
        }
        return same;
    }

    /** The parts of a path, without those that say nothing: {@code ./}, {@code ../}. Backslashes part as well. */
    private static String[] parts(String path) {
        return Split.names(path.replace('\\', '/')).stream()
                .filter(part -> !part.equals(".") && !part.equals(".."))
                .toArray(String[]::new);
    }

    private static String last(String[] parts) {
        return parts.length == 0 ? "" : parts[parts.length - 1];
    }
}
