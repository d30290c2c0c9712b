package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Query.LimitKind;
import dev.oddbeacon.core.source.Region;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Where to look. Several values of one part mean or, different parts mean and; a part without values does not limit.
 * Without a branch each repository's default branch is searched. Immutable.
 */
public record Scope(Map<Part, List<String>> values) {
    public static final Scope EVERYTHING = new Scope(Map.of());

    /** What limits a scope, each in the way of the clause of its name in an expression. */
    public enum Part {
        REPO(LimitKind.REPO, true, "in all repositories"),
        LABEL(LimitKind.LABEL, true, "whatever the label"),
        BRANCH(LimitKind.BRANCH, true, "on the default branches"),
        UNDER(LimitKind.UNDER, true, "in all folders"),
        NOT_UNDER(LimitKind.UNDER, false, "with no folder left out"),
        TYPE(LimitKind.TYPE, true, "in files of all types"),
        TRAIT(LimitKind.TRAIT, true, "whatever the trait"),
        NOT_TRAIT(LimitKind.TRAIT, false, "with no trait left out"),
        EXCEPT(LimitKind.EXCEPT, true, "without the exclusion set"),
        /** Listed files, as repository/path. */
        FILE(LimitKind.UNDER, true, "in all files"),
        /** When files were changed last, as days: from one on, before one. */
        CHANGED_AFTER(LimitKind.UNDER, true, "whenever they were changed"),
        CHANGED_BEFORE(LimitKind.UNDER, true, "whenever they were changed"),
        /** Parts of files: code, comment, string. They limit text, not files. */
        REGION(LimitKind.TYPE, true, "in code, comments and strings alike"),
        NOT_REGION(LimitKind.TYPE, false, "with no part of files left out");

        private final LimitKind kind;
        private final boolean wanted;
        private final String without;

        Part(LimitKind kind, boolean wanted, String without) {
            this.kind = kind;
            this.wanted = wanted;
            this.without = without;
        }

        /** What a search is like without this part, in words. */
        String without() {
            return without;
        }

        /** Whether a file must pass all values, not one of them. */
        boolean isForAll() {
            return !wanted || kind == LimitKind.EXCEPT;
        }

        /** Whether it limits text, not files. */
        boolean isOfText() {
            return this == REGION || this == NOT_REGION;
        }

        private Query query(List<String> values) {
            if (isOfText()) {
                return Query.EVERYTHING;
            }
            if (this == FILE) {
                return new Query.Listed(values);
            }
            if (this == CHANGED_AFTER || this == CHANGED_BEFORE) {
                values.forEach(day -> Days.start(day, Instant.now()));
                return Query.or(values.stream().map(day -> (Query) new Query.When(Query.Time.valueOf(name()), day.strip())).toList());
            }
            List<Query> limits = values.stream().map(this::query).toList();
            return isForAll() ? Query.and(limits) : Query.or(limits);
        }

        private Query query(String value) {
            Query limit = new Query.Limit(kind, value);
            return wanted ? limit : new Query.Not(limit);
        }
    }

    public Scope {
        Map<Part, List<String>> given = new EnumMap<>(Part.class);
        values.forEach((part, list) -> {
            if (!list.isEmpty()) {
                given.put(part, List.copyOf(list));
            }
        });
        values = Collections.unmodifiableMap(given);
    }

    /** The values of a part; empty if it does not limit. */
    public List<String> of(Part part) {
        return values.getOrDefault(part, List.of());
    }

    /** This scope with other values for a part. */
    public Scope with(Part part, List<String> list) {
        Map<Part, List<String>> changed = new EnumMap<>(Part.class);
        changed.putAll(values);
        changed.put(part, list);
        return new Scope(changed);
    }

    /** The scope as part of a query. */
    public Query query() {
        List<Query> parts = new ArrayList<>();
        values.forEach((part, list) -> parts.add(part.query(list)));
        return Query.and(parts);
    }

    /** A query that is to be asked within this scope. */
    public Query around(Query query) {
        return Query.and(List.of(query(), withinRegions(query)));
    }

    /** A query of text, within the regions of this scope. */
    Query withinRegions(Query query) {
        return within(regions(), query);
    }

    /** The regions in which text is looked for. */
    private EnumSet<Region> regions() {
        EnumSet<Region> regions = EnumSet.allOf(Region.class);
        if (!of(Part.REGION).isEmpty()) {
            regions.removeIf(region -> !of(Part.REGION).contains(label(region)));
        }
        regions.removeIf(region -> of(Part.NOT_REGION).contains(label(region)));
        return regions;
    }

    private static String label(Region region) {
        return region.name().toLowerCase(Locale.ROOT);
    }

    /** @throws InvalidQueryException if no region is left */
    private static Query within(EnumSet<Region> regions, Query query) {
        if (regions.isEmpty()) {
            throw new InvalidQueryException("No region is left to search: those that are asked for are left out as well.");
        }
        return regions.size() == Region.values().length || query instanceof Query.Everything ? query : new Query.InRegion(Set.copyOf(regions), query);
    }
}
