package dev.oddbeacon.core.search;

import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.ExpressionPrinter;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Query.LimitKind;
import dev.oddbeacon.core.search.Scope.Part;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.CaseFolding;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Tells of one file why it is among the results of a search, or which of the search's limits keeps it out.
 *
 * @param text what the search asks for, without its scope
 * @param sets the exclusion sets by name
 */
public record AboutFile(Query text, Scope scope, Limits.Exclusions exclusions, Function<String, Optional<ExclusionSet>> sets) {
    private static final Duration TIME = Duration.ofSeconds(5);
    private static final int LONGEST_LINE = 300;

    /**
     * One of the search's limits.
     *
     * @param limit as an expression, or in words
     * @param why in words
     */
    public record Check(String limit, boolean holds, String why) {}

    /** @param number from 1 */
    public record NearestLine(int number, String text) {}

    /**
     * @param hits lines of the file that match the text alone, whatever the scope
     * @param traits each with the reason
     * @param nearest where nothing matches, the line that shares the most words with the text
     */
    public record Answer(boolean found, long hits, String type, Map<String, String> traits, List<Check> checks, Optional<NearestLine> nearest) {}

    public Answer of(View view, int rank, int number, SearchPool pool) {
        SnapshotReader snapshot = view.snapshot(rank);
        SnapshotFile file = snapshot.file(number);
        Branch branch = view.branch(rank);
        Map<String, String> traits = traits(view, rank, number, file);
        List<Check> checks = new ArrayList<>();
        if (scope.of(Part.BRANCH).isEmpty() && text.limits().stream().noneMatch(limit -> limit.kind() == LimitKind.BRANCH)) {
            checks.add(new Check("default branches", branch.isDefault(), branch.isDefault() ? branch.name() + " is the default branch" : branch.name() + " is not the default branch: name it in the scope"));
        }
        scope.values().forEach((part, values) -> {
            if (part.isOfText()) {
                return;
            }
            for (List<String> group : part.isForAll() ? values.stream().map(List::of).toList() : List.of(values)) {
                checks.add(check(view, rank, number, file, new Scope(Map.of(part, group)).query(), traits));
            }
        });
        List<Query> parts = text instanceof Query.And and ? and.parts() : List.of(text);
        parts.stream().filter(AboutFile::isLimit).forEach(limit -> checks.add(check(view, rank, number, file, limit, traits)));
        Query asked = scope.withinRegions(Query.and(parts.stream().filter(part -> !isLimit(part)).toList()));
        boolean searched = file.standing() == Standing.SEARCHED;
        if (!searched) {
            checks.add(new Check("text is searched", false, "its text is not searched: " + file.standing().reason()));
        }
        LineAnswer hits = searched ? hits(view, branch, file, asked, pool) : null;
        long count = hits == null ? 0 : hits.hits();
        boolean matches = hits != null && hits.files() > 0;
        if (searched && !asked.equals(Query.EVERYTHING)) {
            checks.add(new Check(ExpressionPrinter.print(asked), matches, matches ? count == 0 ? "the file satisfies it" : count + (count == 1 ? " line matches" : " lines match") : "no line of it matches"));
        }
        return new Answer(checks.stream().allMatch(Check::holds), count, file.type(), traits, checks, searched && !matches ? nearest(view, rank, number) : Optional.empty());
    }

    private static Map<String, String> traits(View view, int rank, int number, SnapshotFile file) {
        Signs signs = view.location(rank, number).map(location -> location.segment().signs(location.blob())).orElse(Signs.NONE);
        Map<Trait, String> told = Traits.of(file.path(), file.type(), signs, file.standing() != Standing.BINARY);
        boolean overridden = Traits.mask(told.keySet()) != file.traits();
        return Traits.of(file.traits()).stream().collect(Collectors.toMap(Trait::label, trait -> overridden ? "the repository's .gitattributes say so" : told.get(trait)));
    }

    private static boolean isLimit(Query query) {
        return query instanceof Query.Limit || query instanceof Query.Listed || query instanceof Query.When || query instanceof Query.Not not && isLimit(not.part()) || query instanceof Query.Or or && or.parts().stream().allMatch(AboutFile::isLimit);
    }

    private Check check(View view, int rank, int number, SnapshotFile file, Query limit, Map<String, String> traits) {
        Query withBranch = limit.limits().stream().anyMatch(one -> one.kind() == LimitKind.BRANCH) ? limit
                : Query.and(List.of(new Query.Limit(LimitKind.BRANCH, escaped(view.branch(rank).name())), limit)); // whether its branch is searched is a check of its own
        boolean holds = Limits.of(view, CompiledQuery.of(withBranch, CaseMode.AUTO), exclusions).files().hold(rank, number);
        if (limit instanceof Query.Listed listed) {
            return new Check("listed files", holds, (holds ? "it is one of " : "it is none of ") + (listed.files().size() == 1 ? "the one listed file" : "the " + listed.files().size() + " listed files"));
        }
        String why = limit.limits().stream().map(one -> why(view, rank, number, file, one, traits)).distinct().collect(Collectors.joining("; "));
        return new Check(ExpressionPrinter.print(limit), holds, why);
    }

    private String why(View view, int rank, int number, SnapshotFile file, Query.Limit limit, Map<String, String> traits) {
        Branch branch = view.branch(rank);
        return switch (limit.kind()) {
            case REPO -> "it is in " + branch.repository();
            case LABEL -> branch.labels().isEmpty() ? branch.repository() + " has no labels" : branch.repository() + " is labelled " + String.join(", ", branch.labels());
            case BRANCH -> "it is on " + branch.name();
            case UNDER -> "its path is " + file.path();
            case TYPE -> "its type is " + file.type();
            case TRAIT -> traits.isEmpty() ? "it has no traits" : traits.entrySet().stream().map(entry -> entry.getKey() + " (" + entry.getValue() + ")").sorted().collect(Collectors.joining(", "));
            case EXCEPT -> sets.apply(limit.glob()).map(set -> decision(set, view.snapshot(rank), number)).orElse("there is no such set");
        };
    }

    private static String decision(ExclusionSet set, SnapshotReader snapshot, int wanted) {
        String[] decision = {"no pattern of it matches"};
        set.walk(snapshot, (file, _, charge) -> {
            if (file == wanted && charge.pattern() >= 0) {
                var pattern = set.patterns().get(charge.pattern());
                decision[0] = "line " + pattern.line() + ", " + pattern.text() + ", " + (charge.isOut() ? "takes it out" : "brings it back")
                        + (charge.folder().isEmpty() ? "" : " with the folder " + charge.folder());
            }
        });
        return decision[0];
    }

    private LineAnswer hits(View view, Branch branch, SnapshotFile file, Query asked, SearchPool pool) {
        Query inFile = Query.and(List.of(new Query.Limit(LimitKind.REPO, escaped(branch.repository())), new Query.Limit(LimitKind.BRANCH, escaped(branch.name())),
                new Query.Limit(LimitKind.UNDER, "/" + escaped(file.path())), asked));
        return new LineSearch(CompiledQuery.of(inFile, CaseMode.AUTO), 1, 0, LineAnswer.Position.START, true, LineSearch.Order.PATH, LineSearch.Show.COUNTS, exclusions, new Budget(TIME)).run(view, pool);
    }

    private static String escaped(String text) {
        return text.replaceAll("[\\[*?]", "[$0]");
    }

    /** The line with the most words of the text. */
    private Optional<NearestLine> nearest(View view, int rank, int number) {
        Set<String> wanted = new HashSet<>();
        collectWords(text, wanted);
        SegmentReader segment = view.location(rank, number).orElseThrow().segment();
        int blob = view.blob(rank, number);
        String all = new String(segment.content().asSlice(segment.start(blob), segment.end(blob) - segment.start(blob)).toArray(ValueLayout.JAVA_BYTE), StandardCharsets.UTF_8);
        int best = 0;
        Optional<NearestLine> nearest = Optional.empty();
        int line = 0;
        for (String candidate : (Iterable<String>) all.lines()::iterator) {
            line++;
            Set<String> words = words(candidate);
            words.retainAll(wanted);
            if (words.size() > best) {
                best = words.size();
                nearest = Optional.of(new NearestLine(line, candidate.substring(0, Math.min(LONGEST_LINE, candidate.length()))));
            }
        }
        return nearest;
    }

    private static void collectWords(Query query, Set<String> into) {
        switch (query) {
            case Query.Text literal -> into.addAll(words(literal.text()));
            case Query.Like like -> into.addAll(words(like.word()));
            case Query.Not _, Query.Limit _, Query.Listed _, Query.Holds _, Query.When _ -> { }
            default -> query.children().forEach(child -> collectWords(child, into));
        }
    }

    private static Set<String> words(String text) {
        int[] folded = CaseFolding.fold(text);
        Set<String> words = new HashSet<>(Arrays.asList(new String(folded, 0, folded.length).split("[^\\p{L}\\p{M}\\p{Nd}_]+")));
        words.remove("");
        return words;
    }
}
