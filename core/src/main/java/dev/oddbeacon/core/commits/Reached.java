package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.Map;

/** The commits that a search of the past looks at: those that the branches of its scope reach. */
public final class Reached {
    private Reached() {}

    /** The part of a query about repositories, labels and branches, whatever it asks of commits and files. */
    public static CompiledQuery branches(Query query) {
        return CompiledQuery.of(ofBranches(query), CaseMode.AUTO);
    }

    private static Query ofBranches(Query query) {
        return switch (query) {
            case Query.And and ->
                Query.and(and.parts().stream().map(Reached::ofBranches).toList());
            case Query.Or or ->
                Query.or(or.parts().stream().map(Reached::ofBranches).toList());
            case Query.Not not ->
                not.part() instanceof FileCondition && !(ofBranches(not.part()) instanceof Query.Everything)
                        ? not
                        : Query.EVERYTHING;
            case FileCondition condition ->
                switch (condition) {
                    case FileCondition.Repository _, FileCondition.Label _, FileCondition.OnBranch _ -> condition;
                    case FileCondition.Under _,
                            FileCondition.Type _,
                            FileCondition.HasTrait _,
                            FileCondition.Except _,
                            FileCondition.Listed _,
                            FileCondition.Changed _,
                            FileCondition.Size _ -> Query.EVERYTHING;
                };
            case Query.Marked _, Query.InRegion _, Query.Holds _, Query.Everything _, TextClause _, CommitCondition _ ->
                Query.EVERYTHING;
        };
    }

    /** The commits of each repository that its searched branches reach. */
    static Map<String, BitSet> of(SearchContext context, Query query) {
        View view = context.view();
        Limits limits = context.limits(branches(query));
        Map<String, BitSet> reachable = new LinkedHashMap<>();
        for (int number = 0; number < view.branches().size(); number++) {
            if (limits.holdsBranch(number)) {
                Branch branch = view.branch(number);
                Past past = view.past(branch.repository());
                if (!past.isEmpty()) {
                    reachable
                            .computeIfAbsent(branch.repository(), _ -> new BitSet())
                            .or(past.reachable(ObjectId.of(branch.commit())));
                }
            }
        }
        return reachable;
    }
}
