package dev.oddbeacon.core.lines;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import java.util.ArrayList;
import java.util.List;

/**
 * What the exclusion sets of a scope took away from a search, set by set: the same search in the files of the set
 * alone.
 */
public record LeftOut(Query query, Scope scope) {
    /** @param exact whether the counts are; lower bounds otherwise */
    public record BySet(String name, long hits, int files, boolean exact) {}

    /** Sets that took nothing away are left out. */
    public List<BySet> run(SearchContext context) {
        Scope without = scope.with(ScopePart.EXCEPT, List.of());
        List<BySet> found = new ArrayList<>();
        for (String set : scope.of(ScopePart.EXCEPT)) {
            Query inSet = without.around(Query.and(List.of(new Query.Not(new FileCondition.Except(set)), query)));
            LineAnswer answer =
                    LineSearch.counting(CompiledQuery.of(inSet, CaseMode.AUTO)).run(context);
            if (answer.files() > 0 || !answer.exact()) {
                found.add(new BySet(set, answer.hits(), answer.files(), answer.exact()));
            }
        }
        return found;
    }
}
