package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.search.LineAnswer.Span;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.CaseFolding;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Searches paths by fragments: each must occur, in any order, ignoring case. Skipped files are found as well. Files
 * whose name holds the last fragment come first, short paths before long ones.
 */
public record FileSearch(String text, Scope scope, int limit) {
    /** @param matches of the fragments in the path, ascending */
    public record Found(int rank, int file, String path, List<Span> matches) {}

    /** @param files how many were found in all, in so many repositories */
    public record Answer(int files, int repositories, List<Found> page) {}

    public Answer run(View view, Limits.Exclusions exclusions) {
        List<String> fragments = new ArrayList<>();
        for (String fragment : text.strip().split("\\s+")) {
            if (!fragment.isEmpty()) {
                fragments.add(folded(fragment));
            }
        }
        Limits limits = Limits.of(view, CompiledQuery.of(scope.query(), CaseMode.AUTO), exclusions);
        Limits.Files files = limits.files();
        List<Found> found = new ArrayList<>();
        for (int rank = 0; rank < view.branches().size(); rank++) {
            if (limits.holdsBranch(rank)) {
                int branch = rank;
                view.snapshot(rank).forEachPath((path, file) -> {
                    List<Span> matches = matches(folded(path), fragments);
                    if ((fragments.isEmpty() || !matches.isEmpty()) && files.hold(branch, file, path)) {
                        found.add(new Found(branch, file, path, matches));
                    }
                });
            }
        }
        Set<String> repositories = new HashSet<>();
        found.forEach(file -> repositories.add(view.branch(file.rank).repository()));
        if (!fragments.isEmpty()) {
            String last = fragments.getLast();
            found.sort(Comparator.comparing((Found file) -> !folded(name(file.path)).contains(last))
                    .thenComparingInt(file -> file.path.length()).thenComparing(Found::path));
        }
        return new Answer(found.size(), repositories.size(), List.copyOf(found.subList(0, Math.min(limit, found.size()))));
    }

    private static String name(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    /** Folding keeps the number of UTF-16 units, but for letters outside the basic plane that fold into it; there are none. */
    private static String folded(String text) {
        int[] folded = CaseFolding.fold(text);
        return new String(folded, 0, folded.length);
    }

    /** Where each fragment stands last in the path; empty if one is missing. */
    private static List<Span> matches(String path, List<String> fragments) {
        List<Span> spans = new ArrayList<>();
        for (String fragment : fragments) {
            int at = path.lastIndexOf(fragment);
            if (at < 0) {
                return List.of();
            }
            spans.add(new Span(at, at + fragment.length()));
        }
        spans.sort(Comparator.comparingInt(Span::start));
        List<Span> merged = new ArrayList<>();
        for (Span span : spans) {
            if (!merged.isEmpty() && span.start() <= merged.getLast().end()) {
                Span before = merged.removeLast();
                merged.add(new Span(before.start(), Math.max(before.end(), span.end())));
            } else {
                merged.add(span);
            }
        }
        return merged;
    }
}
