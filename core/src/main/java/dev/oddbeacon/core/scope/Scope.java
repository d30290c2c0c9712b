package dev.oddbeacon.core.scope;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.source.Region;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * Where to look. Several values of one part mean or, different parts mean and; a part without values does not limit.
 * Without a branch each repository's default branch is searched. Immutable.
 */
public record Scope(Map<ScopePart, List<String>> values) {
    public static final Scope EVERYTHING = new Scope(Map.of());

    public Scope {
        Map<ScopePart, List<String>> given = new EnumMap<>(ScopePart.class);
        values.forEach((part, list) -> {
            if (!list.isEmpty()) {
                given.put(part, List.copyOf(list));
            }
        });
        values = Collections.unmodifiableMap(given);
    }

    /** The values of a part; empty if it does not limit. */
    public List<String> of(ScopePart part) {
        return values.getOrDefault(part, List.of());
    }

    /** This scope with other values for a part. */
    public Scope with(ScopePart part, List<String> list) {
        Map<ScopePart, List<String>> changed = new EnumMap<>(ScopePart.class);
        changed.putAll(values);
        changed.put(part, list);
        return new Scope(changed);
    }

    /** The scope as part of a query. */
    public Query query() {
        List<Query> parts = new ArrayList<>();
        values.forEach((part, list) -> parts.add(query(part, list)));
        return Query.and(parts);
    }

    /** One part as a query. */
    private static Query query(ScopePart part, List<String> values) {
        return switch (part) {
            case REPO -> any(values, FileCondition.Repository::new);
            case LABEL -> any(values, FileCondition.Label::new);
            case BRANCH -> any(values, FileCondition.OnBranch::new);
            case UNDER -> any(values, FileCondition.Under::new);
            case NOT_UNDER -> none(values, FileCondition.Under::new);
            case TYPE -> any(values, FileCondition.Type::new);
            case TRAIT -> any(values, FileCondition.HasTrait::new);
            case NOT_TRAIT -> none(values, FileCondition.HasTrait::new);
            case EXCEPT ->
                Query.and(values.stream().map(FileCondition.Except::new).toList());
            case FILE -> new FileCondition.Listed(values);
            case CHANGED_AFTER ->
                any(values, day -> new FileCondition.Changed(Optional.of(day(day)), Optional.empty()));
            case CHANGED_BEFORE ->
                any(values, day -> new FileCondition.Changed(Optional.empty(), Optional.of(day(day))));
            case REGION, NOT_REGION, LIFT -> Query.EVERYTHING;
        };
    }

    private static Query any(List<String> values, Function<String, FileCondition> condition) {
        return Query.or(values.stream().map(condition).toList());
    }

    private static Query none(List<String> values, Function<String, FileCondition> condition) {
        return Query.and(values.stream()
                .map(value -> new Query.Not(condition.apply(value)))
                .toList());
    }

    private static String day(String text) {
        Days.check(text);
        return text.strip();
    }

    /** Each condition of this scope by itself, in the order of the table: what a file must satisfy one by one. */
    public List<Query> conditions() {
        List<Query> conditions = new ArrayList<>();
        values.forEach((part, list) -> {
            for (List<String> group :
                    part.isForAll() ? list.stream().map(List::of).toList() : List.of(list)) {
                Query condition = query(part, group);
                if (!(condition instanceof Query.Everything)) {
                    conditions.add(condition);
                }
            }
        });
        return conditions;
    }

    /** A query that is to be asked within this scope. */
    public Query around(Query query) {
        return Query.and(List.of(query(), withinRegions(query)));
    }

    /**
     * A query of text, within the regions of this scope.
     *
     * @throws InvalidQueryException if no region is left
     */
    public Query withinRegions(Query query) {
        EnumSet<Region> regions = regions();
        if (regions.isEmpty()) {
            throw new InvalidQueryException(
                    "No region is left to search: those that are asked for are left out as well.");
        }
        boolean isEverywhere = regions.size() == Region.values().length;
        return isEverywhere || query instanceof Query.Everything
                ? query
                : new Query.InRegion(Set.copyOf(regions), query);
    }

    /** The regions in which text is looked for. */
    private EnumSet<Region> regions() {
        EnumSet<Region> regions = EnumSet.allOf(Region.class);
        if (!of(ScopePart.REGION).isEmpty()) {
            regions.removeIf(region -> !of(ScopePart.REGION).contains(label(region)));
        }
        regions.removeIf(region -> of(ScopePart.NOT_REGION).contains(label(region)));
        return regions;
    }

    private static String label(Region region) {
        return region.name().toLowerCase(Locale.ROOT);
    }
}
