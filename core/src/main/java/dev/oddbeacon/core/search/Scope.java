package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Query.LimitKind;
import java.util.ArrayList;
import java.util.List;

/**
 * Where to look. Several values of one limit mean or, different limits mean and; an empty list does not limit.
 *
 * @param repositories globs for names
 * @param labels globs for labels
 * @param branches globs for branches and tags; without one each repository's default branch is searched
 * @param under globs for paths, see {@link dev.oddbeacon.core.query.Glob#ofPath}
 * @param notUnder globs for paths that are left out
 */
public record Scope(List<String> repositories, List<String> labels, List<String> branches, List<String> under, List<String> notUnder) {
    public static final Scope EVERYTHING = new Scope(List.of(), List.of(), List.of(), List.of(), List.of());

    public Scope {
        repositories = List.copyOf(repositories);
        labels = List.copyOf(labels);
        branches = List.copyOf(branches);
        under = List.copyOf(under);
        notUnder = List.copyOf(notUnder);
    }

    /** The scope as part of a query. */
    public Query query() {
        List<Query> parts = new ArrayList<>();
        anyOf(LimitKind.REPO, repositories, parts);
        anyOf(LimitKind.LABEL, labels, parts);
        anyOf(LimitKind.BRANCH, branches, parts);
        anyOf(LimitKind.UNDER, under, parts);
        notUnder.forEach(glob -> parts.add(new Query.Not(new Query.Limit(LimitKind.UNDER, glob))));
        return Query.and(parts);
    }

    /** A query that is to be asked within this scope. */
    public Query around(Query query) {
        return Query.and(List.of(query(), query));
    }

    private static void anyOf(LimitKind kind, List<String> globs, List<Query> parts) {
        if (!globs.isEmpty()) {
            parts.add(Query.or(globs.stream().map(glob -> (Query) new Query.Limit(kind, glob)).toList()));
        }
    }
}
