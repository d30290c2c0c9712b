package dev.oddbeacon.server.access;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.server.web.RecordParameters;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Where a search looks, as it comes in: for each part of a scope that was given, its values, none of them empty.
 *
 * @throws InvalidQueryException for values that no scope can have
 */
public record ScopeParameters(Map<ScopePart, List<String>> values) {
    private static final int MOST_FILES = 10_000;
    private static final List<String> REGIONS = Arrays.stream(Region.values())
            .map(region -> region.name().toLowerCase(Locale.ROOT))
            .toList();

    public ScopeParameters {
        Stream.of(ScopePart.REGION, ScopePart.NOT_REGION)
                .flatMap(part -> values.getOrDefault(part, List.of()).stream())
                .filter(region -> !REGIONS.contains(region))
                .findFirst()
                .ifPresent(wrong -> {
                    throw new InvalidQueryException(
                            "There is no region " + wrong + ". Regions are " + String.join(", ", REGIONS) + ".");
                });
        int files = values.getOrDefault(ScopePart.FILE, List.of()).size();
        if (files > MOST_FILES) {
            throw new InvalidQueryException(files + " files are listed; at most " + MOST_FILES
                    + " can be. List folders with under, or search in several steps.");
        }
    }

    /** As they are given. */
    public static ScopeParameters of(RecordParameters.Given given) {
        Map<ScopePart, List<String>> scope = new EnumMap<>(ScopePart.class);
        for (ScopePart part : ScopePart.values()) {
            String[] values = given.values(part.parameter());
            if (values != null) {
                scope.put(
                        part,
                        Arrays.stream(values).filter(value -> !value.isEmpty()).toList());
            }
        }
        return new ScopeParameters(scope);
    }

    /** The part of it that lies in one repository; empty if there is none. */
    public Optional<ScopeParameters> within(String repository) {
        List<String> wanted = of(ScopePart.REPO);
        if (!wanted.isEmpty() && wanted.stream().map(Glob::ofName).noneMatch(glob -> glob.matches(repository))) {
            return Optional.empty();
        }
        Map<ScopePart, List<String>> narrowed = new EnumMap<>(ScopePart.class);
        narrowed.putAll(values);
        narrowed.put(ScopePart.REPO, List.of(Glob.escape(repository)));
        return Optional.of(new ScopeParameters(narrowed));
    }

    /** Whether it looks in some regions of files only. */
    public boolean hasRegions() {
        return !of(ScopePart.REGION).isEmpty() || !of(ScopePart.NOT_REGION).isEmpty();
    }

    List<String> of(ScopePart part) {
        return values.getOrDefault(part, List.of());
    }

    /** @param defaults exclusion sets that apply unless they are lifted */
    Scope scope(List<String> defaults) {
        List<String> lifted = of(ScopePart.LIFT);
        List<String> sets = Stream.concat(
                        of(ScopePart.EXCEPT).stream(), defaults.stream().filter(name -> !lifted.contains(name)))
                .distinct()
                .toList();
        return new Scope(values)
                .with(ScopePart.EXCEPT, sets)
                .with(ScopePart.LIFT, List.of())
                .with(ScopePart.FILE, of(ScopePart.FILE).stream().distinct().toList());
    }
}
