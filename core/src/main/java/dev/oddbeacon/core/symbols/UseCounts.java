package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.UseJudge;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.BlobParts;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Counts the uses of names, which the index has by piece, so that no text is looked at; and of declarations. */
public final class UseCounts {
    private UseCounts() {}

    /**
     * Uses of each name in code, in exactly this spelling, wherever it is not declared.
     *
     * @param context when its budget is over, the names that were not counted are absent
     */
    public static Map<String, Long> of(SearchContext context, Scope scope, Collection<String> names) {
        Limits.Files files =
                context.limits(CompiledQuery.of(scope.query(), CaseMode.AUTO)).files();
        Map<String, Long> counts = new HashMap<>();
        for (String name : names) {
            if (context.budget().isOver()) {
                break;
            }
            if (!counts.containsKey(name)) {
                counts.put(name, count(context.view(), files, name.getBytes(StandardCharsets.UTF_8)));
            }
        }
        return counts;
    }

    /**
     * Uses that mean a declaration, surely or likely.
     *
     * @param most uses of a name; of names with more, and when the budget is over, nothing is said
     * @return by declaration
     */
    public static Map<Spot, Long> meant(
            SearchContext context, Scope scope, Collection<Spot> declarations, Map<String, Long> byName, long most) {
        View view = context.view();
        Limits.Files files =
                context.limits(CompiledQuery.of(scope.query(), CaseMode.AUTO)).files();
        BlobParts parts = new BlobParts(view);
        UseJudge judge = UseJudge.of(view, List.of());
        Map<Spot, Long> counts = new LinkedHashMap<>();
        for (Spot spot : declarations) {
            if (context.budget().isOver()) {
                break;
            }
            String name = spot.name();
            if (byName.getOrDefault(name, Long.MAX_VALUE) <= most) {
                long count = meant(view, files, name, judge.ofOthers(List.of(spot)), parts);
                counts.put(spot, count);
            }
        }
        return counts;
    }

    private static long meant(View view, Limits.Files files, String name, UseJudge judge, BlobParts parts) {
        long[] count = {0};
        for (SegmentReader segment : view.segments()) {
            if (!view.isUsed(segment)) {
                continue;
            }
            segment.names().occurrences(name.getBytes(StandardCharsets.UTF_8), (piece, uses, _, _, _) -> {
                if (uses == 0) {
                    return;
                }
                int blob = segment.blobOf(piece);
                parts.begin(segment, blob, 0, 0); // uses by name are the same at each place
                long[] offsets = Uses.of(segment, piece, name, parts);
                view.forEachPlace(segment, blob, (branchNumber, file) -> {
                    if (files.hold(branchNumber, file)) {
                        for (long offset : offsets) {
                            count[0] += judge.of(name, branchNumber, file, offset) == Certainty.BY_NAME ? 0 : 1;
                        }
                    }
                });
            });
        }
        return count[0];
    }

    private static long count(View view, Limits.Files files, byte[] name) {
        long[] count = {0};
        for (SegmentReader segment : view.segments()) {
            if (view.isUsed(segment)) {
                segment.names().occurrences(name, (piece, uses, _, _, _) -> {
                    if (uses > 0) {
                        view.forEachPlace(
                                segment,
                                segment.blobOf(piece),
                                (branchNumber, file) -> count[0] += files.hold(branchNumber, file) ? uses : 0);
                    }
                });
            }
        }
        return count[0];
    }
}
