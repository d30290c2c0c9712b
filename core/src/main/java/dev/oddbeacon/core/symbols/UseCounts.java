package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;

/** Counts the uses of names. The index has the number of uses by piece, so no text is looked at. */
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
