package dev.oddbeacon.core.lines;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.BranchFacts;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.FileFacts;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
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
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Tells of one file why it is among the results of a search, or which of the search's limits keeps it out.
 *
 * @param text what the search asks for, without its scope
 * @param sets the exclusion sets by name
 */
public record AboutFile(Query text, Scope scope, Function<String, Optional<ExclusionSet>> sets) {
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
    public record Answer(
            boolean found,
            long hits,
            String type,
            Map<String, String> traits,
            List<Check> checks,
            Optional<NearestLine> nearest) {}

    public Answer of(SearchContext context, int branchNumber, int number) {
        View view = context.view();
        SnapshotFile file = view.snapshot(branchNumber).file(number);
        Branch branch = view.branch(branchNumber);
        Facts facts = new Facts(context, branchNumber, number, file);
        List<Check> checks = new ArrayList<>();
        if (scope.of(ScopePart.BRANCH).isEmpty()
                && text.conditions().stream().noneMatch(FileCondition.OnBranch.class::isInstance)) {
            checks.add(new Check(
                    "default branches",
                    branch.isDefault(),
                    branch.isDefault()
                            ? branch.name() + " is the default branch"
                            : branch.name() + " is not the default branch: name it in the scope"));
        }
        scope.conditions().forEach(condition -> checks.add(check(condition, facts)));
        List<Query> parts = text instanceof Query.And and ? and.parts() : List.of(text);
        parts.stream().filter(Query::isOfFiles).forEach(condition -> checks.add(check(condition, facts)));
        Query asked = scope.withinRegions(
                Query.and(parts.stream().filter(part -> !part.isOfFiles()).toList()));
        boolean searched = file.standing() == Standing.SEARCHED;
        if (!searched) {
            checks.add(new Check(
                    "text is searched",
                    false,
                    "its text is not searched: " + file.standing().reason()));
        }
        LineAnswer hits = searched ? hits(context.within(TIME), branch, file, asked) : null;
        long count = hits == null ? 0 : hits.hits();
        boolean matches = hits != null && hits.files() > 0;
        if (searched && !asked.equals(Query.EVERYTHING)) {
            checks.add(new Check(
                    ExpressionPrinter.print(asked),
                    matches,
                    matches
                            ? count == 0
                                    ? "the file satisfies it"
                                    : count + (count == 1 ? " line matches" : " lines match")
                            : "no line of it matches"));
        }
        return new Answer(
                checks.stream().allMatch(Check::holds),
                count,
                file.type(),
                facts.reasonsOfTraits(),
                checks,
                searched && !matches ? nearest(view, branchNumber, number) : Optional.empty());
    }

    /** Whether conditions, joined in any way, hold for the file. */
    private static Check check(Query conditions, Facts file) {
        String why = conditions.conditions().stream()
                .map(condition -> condition.why(file))
                .distinct()
                .collect(Collectors.joining("; "));
        String told = conditions instanceof FileCondition.Listed ? "listed files" : ExpressionPrinter.print(conditions);
        return new Check(told, holds(conditions, file), why);
    }

    private static boolean holds(Query conditions, FileFacts file) {
        return switch (conditions) {
            case Query.And and -> and.parts().stream().allMatch(part -> holds(part, file));
            case Query.Or or -> or.parts().stream().anyMatch(part -> holds(part, file));
            case Query.Not not -> !holds(not.part(), file);
            case FileCondition condition -> condition.holds(file);
            case Query.Marked _, Query.InRegion _, Query.Holds _, Query.Everything _, TextClause _, CommitCondition _ ->
                throw new IllegalArgumentException("no condition on files: " + conditions);
        };
    }

    /** The facts about the file that conditions see. */
    private final class Facts implements FileFacts.Explained {
        private final SearchContext context;
        private final int branchNumber;
        private final int number;
        private final SnapshotFile file;
        private final Map<String, String> traits;

        Facts(SearchContext context, int branchNumber, int number, SnapshotFile file) {
            this.context = context;
            this.branchNumber = branchNumber;
            this.number = number;
            this.file = file;
            this.traits = AboutFile.traits(context.view(), branchNumber, number, file);
        }

        @Override
        public BranchFacts branch() {
            Branch branch = context.view().branch(branchNumber);
            return new BranchFacts(branch.repository(), branch.labels(), Optional.of(branch.name()));
        }

        @Override
        public String path() {
            return file.path();
        }

        @Override
        public String type() {
            return file.type();
        }

        @Override
        public boolean isOfType(FileCondition.Type condition) {
            return condition.type().matches(file.type());
        }

        @Override
        public int traits() {
            return file.traits();
        }

        @Override
        public boolean isExcluded(String set) {
            return context.exclusions()
                    .excluded(set, context.view().snapshot(branchNumber))
                    .get(number);
        }

        @Override
        public boolean isListed(FileCondition.Listed list) {
            return list.files().contains(context.view().branch(branchNumber).repository() + "/" + file.path());
        }

        @Override
        public OptionalLong bytes() {
            return OptionalLong.of(file.bytes());
        }

        @Override
        public OptionalLong lastChange() {
            return OptionalLong.of(context.view().lastChanges(branchNumber).seconds(number));
        }

        @Override
        public Instant now() {
            return context.now();
        }

        @Override
        public Map<String, String> reasonsOfTraits() {
            return traits;
        }

        @Override
        public String decisionOf(String set) {
            return sets.apply(set)
                    .map(found -> decision(found, context.view().snapshot(branchNumber), number))
                    .orElse("there is no such set");
        }
    }

    private static Map<String, String> traits(View view, int branchNumber, int number, SnapshotFile file) {
        Signs signs = view.location(branchNumber, number)
                .map(location -> location.segment().signs(location.blob()))
                .orElse(Signs.NONE);
        Map<Trait, String> told = Traits.of(file.path(), file.type(), signs, file.standing() != Standing.BINARY);
        boolean overridden = Traits.mask(told.keySet()) != file.traits();
        return Traits.of(file.traits()).stream()
                .collect(Collectors.toMap(
                        Trait::label,
                        trait -> overridden ? "the repository's .gitattributes say so" : told.get(trait)));
    }

    private static String decision(ExclusionSet set, SnapshotReader snapshot, int wanted) {
        String[] decision = {"no pattern of it matches"};
        set.walk(snapshot, (file, _, charge) -> {
            if (file == wanted && charge.pattern() >= 0) {
                var pattern = set.patterns().get(charge.pattern());
                decision[0] = "line " + pattern.line() + ", " + pattern.text() + ", "
                        + (charge.isOut() ? "takes it out" : "brings it back")
                        + (charge.folder().isEmpty() ? "" : " with the folder " + charge.folder());
            }
        });
        return decision[0];
    }

    private static LineAnswer hits(SearchContext context, Branch branch, SnapshotFile file, Query asked) {
        Query inFile = Query.and(List.of(
                new FileCondition.Repository(Glob.escape(branch.repository())),
                new FileCondition.OnBranch(Glob.escape(branch.name())),
                new FileCondition.Under("/" + Glob.escape(file.path())),
                asked));
        return LineSearch.counting(CompiledQuery.of(inFile, CaseMode.AUTO)).run(context);
    }

    /** The line with the most words of the text. */
    private Optional<NearestLine> nearest(View view, int branchNumber, int number) {
        Set<String> wanted = new HashSet<>();
        collectWords(text, wanted);
        SegmentReader segment =
                view.location(branchNumber, number).orElseThrow().segment();
        int blob = view.blob(branchNumber, number);
        String all = new String(
                segment.content()
                        .asSlice(segment.start(blob), segment.end(blob) - segment.start(blob))
                        .toArray(ValueLayout.JAVA_BYTE),
                StandardCharsets.UTF_8);
        int best = 0;
        Optional<NearestLine> nearest = Optional.empty();
        int line = 0;
        for (String candidate : (Iterable<String>) all.lines()::iterator) {
            line++;
            Set<String> words = words(candidate);
            words.retainAll(wanted);
            if (words.size() > best) {
                best = words.size();
                nearest = Optional.of(
                        new NearestLine(line, candidate.substring(0, Math.min(LONGEST_LINE, candidate.length()))));
            }
        }
        return nearest;
    }

    private static void collectWords(Query query, Set<String> into) {
        switch (query) {
            case TextClause.Text literal -> into.addAll(words(literal.text()));
            case TextClause.Like like -> into.addAll(words(like.word()));
            case Query.Not _, Query.Holds _, FileCondition _, CommitCondition _, Query.Everything _ -> {}
            case Query.And _, Query.Or _, Query.Marked _, Query.InRegion _, TextClause _ ->
                query.children().forEach(child -> collectWords(child, into));
        }
    }

    private static Set<String> words(String text) {
        int[] folded = CaseFolding.fold(text);
        Set<String> words = new HashSet<>();
        int start = -1;
        for (int i = 0; i <= folded.length; i++) {
            boolean inWord = i < folded.length && Words.isWordPart(folded[i]);
            if (inWord && start < 0) {
                start = i;
            } else if (!inWord && start >= 0) {
                words.add(new String(folded, start, i - start));
                start = -1;
            }
        }
        return words;
    }
}
