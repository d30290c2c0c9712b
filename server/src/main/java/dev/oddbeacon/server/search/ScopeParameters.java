package dev.oddbeacon.server.search;

import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.core.search.Scope.Part;
import dev.oddbeacon.core.source.Region;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** Where a search looks, as it comes in. Several values of one parameter mean or, different parameters mean and; what is absent is null. */
public record ScopeParameters(
        @Parameter(description = "glob for names of repositories") List<String> repo,
        @Parameter(description = "glob for labels of repositories") List<String> label,
        @Parameter(description = "glob for branches and tags; without it each repository's default branch") List<String> branch,
        @Parameter(description = "glob for folders or files; with a slash from the root of the repository") List<String> under,
        @Parameter(description = "glob for folders or files that are left out") List<String> notUnder,
        @Parameter(description = "type of files, as /api/v1/types lists them") List<String> type,
        @Parameter(description = "trait of files: test, generated, vendored, translation, documentation, configuration, minified, binary") List<String> trait,
        @Parameter(description = "trait of files that are left out") List<String> notTrait,
        @Parameter(description = "name of an exclusion set whose files are left out") List<String> except,
        @Parameter(description = "name of an exclusion set that is applied by default, but not to this search") List<String> lift,
        @Parameter(description = "a file, as repository/path: only listed ones; at most 10000") List<String> file,
        @Parameter(description = "files whose last change was on that day or later: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago") List<String> changedAfter,
        @Parameter(description = "files whose last change was before that day") List<String> changedBefore,
        @Parameter(description = "code, comment or string: text that stands wholly in such a part of a file") List<String> region,
        @Parameter(description = "code, comment or string: no text that stands there") List<String> notRegion) {
    private static final int MOST_FILES = 10_000;
    private static final List<String> REGIONS = Arrays.stream(Region.values()).map(region -> region.name().toLowerCase(Locale.ROOT)).toList();

    /** @param defaults exclusion sets that apply unless they are lifted */
    Scope scope(List<String> defaults) {
        List<String> lifted = given(lift);
        List<String> sets = Stream.concat(given(except).stream(), defaults.stream().filter(name -> !lifted.contains(name))).distinct().toList();
        return Scope.EVERYTHING.with(Part.REPO, given(repo)).with(Part.LABEL, given(label)).with(Part.BRANCH, given(branch))
                .with(Part.UNDER, given(under)).with(Part.NOT_UNDER, given(notUnder)).with(Part.TYPE, given(type))
                .with(Part.TRAIT, given(trait)).with(Part.NOT_TRAIT, given(notTrait)).with(Part.EXCEPT, sets).with(Part.FILE, files()).with(Part.CHANGED_AFTER, given(changedAfter)).with(Part.CHANGED_BEFORE, given(changedBefore)).with(Part.REGION, regions(region)).with(Part.NOT_REGION, regions(notRegion));
    }

    private static List<String> regions(List<String> values) {
        for (String value : given(values)) {
            if (!REGIONS.contains(value)) {
                throw new InvalidQueryException("There is no region " + value + ". Regions are " + String.join(", ", REGIONS) + ".");
            }
        }
        return given(values);
    }

    private List<String> files() {
        List<String> files = given(file);
        if (files.size() > MOST_FILES) {
            throw new InvalidQueryException(files.size() + " files are listed; at most " + MOST_FILES + " can be. List folders with under, or search in several steps.");
        }
        return files.stream().distinct().toList();
    }

    List<String> lifted() {
        return given(lift);
    }

    /** A list parameter: absent, or with empty texts, which limit nothing. */
    private static List<String> given(List<String> values) {
        return values == null ? List.of() : values.stream().filter(value -> value != null && !value.isEmpty()).toList();
    }
}
