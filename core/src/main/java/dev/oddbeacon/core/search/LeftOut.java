package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Query.LimitKind;
import dev.oddbeacon.core.search.Scope.Part;
import dev.oddbeacon.core.snapshot.View;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/**
 * What the exclusion sets of a scope took away from a search, set by set: the same search in the files of the set alone.
 *
 * @param time for all of it
 */
public record LeftOut(Query query, Scope scope, Limits.Exclusions exclusions, Duration time) {
    /** @param exact whether the counts are; lower bounds otherwise */
    public record BySet(String name, long hits, int files, boolean exact) {}

    /** Sets that took nothing away are left out. */
    public List<BySet> run(View view, SearchPool pool) {
        Budget budget = new Budget(time);
        Scope without = scope.with(Part.EXCEPT, List.of());
        List<BySet> found = new ArrayList<>();
        for (String set : scope.of(Part.EXCEPT)) {
            Query inSet = without.around(Query.and(List.of(new Query.Not(new Query.Limit(LimitKind.EXCEPT, set)), query)));
            LineAnswer answer = new LineSearch(CompiledQuery.of(inSet, CaseMode.AUTO), 1, 0, LineAnswer.Position.START, true, LineSearch.Order.PATH, LineSearch.Show.COUNTS,
                    exclusions, budget).run(view, pool);
            if (answer.files() > 0 || !answer.exact()) {
                found.add(new BySet(set, answer.hits(), answer.files(), answer.exact()));
            }
        }
        return found;
    }
}
