package dev.oddbeacon.core.lines;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.Plan;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.core.text.Filled;
import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.core.text.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/**
 * For a search that found nothing: changed searches that would have found something, with their counts. All are tried
 * at once, within the time of the context; one that is not through by then shows what it has, and one that has nothing
 * is left out.
 */
public record SecondLooks(TextQuery asked, Scope scope) {
    private static final int MOST_SPELLINGS = 3;
    private static final int SHORTEST_MISSPELT = 4;
    private static final int MOST_WORDS = 6;
    /** Similar words that are looked for before the best of them are chosen. */
    private static final int MOST_COUNTED = 8;

    /**
     * A changed search.
     *
     * @param change in words
     */
    public record Look(String change, TextQuery query, Scope scope, long hits, int files, boolean exact) {}

    private record Idea(String change, TextQuery query, Scope scope) {}

    public List<Look> run(SearchContext context) {
        List<Idea> ideas = new ArrayList<>(context.pool().call(context.budget(), () -> folders(context.view())));
        ideas.addAll(ideas());
        try (ExecutorService executor = Executors.newVirtualThreadPerTaskExecutor()) {
            List<CompletableFuture<Optional<Look>>> looks = new ArrayList<>(looks(ideas, context, executor));
            looks.addAll(looks(spellings(context), context, executor)); // these take long to think of
            return looks.stream()
                    .map(CompletableFuture::join)
                    .flatMap(Optional::stream)
                    .toList();
        }
    }

    private static List<CompletableFuture<Optional<Look>>> looks(
            List<Idea> ideas, SearchContext context, ExecutorService executor) {
        return ideas.stream()
                .map(idea -> CompletableFuture.supplyAsync(() -> look(idea, context), executor))
                .toList();
    }

    private static Optional<Look> look(Idea idea, SearchContext context) {
        try {
            Query query = idea.scope.around(idea.query.understand(false).query());
            LineAnswer answer =
                    LineSearch.counting(CompiledQuery.of(query, CaseMode.AUTO)).run(context.apart());
            return answer.files() == 0
                    ? Optional.empty()
                    : Optional.of(new Look(
                            idea.change, idea.query, idea.scope, answer.hits(), answer.files(), answer.exact()));
        } catch (InvalidQueryException e) {
            return Optional.empty(); // not a search after all, such as plain text that is no regular expression
        }
    }

    /** Changes of how the text is read, and of the scope. */
    private List<Idea> ideas() {
        List<Idea> ideas = new ArrayList<>();
        String text = asked.text();
        if (asked.reading() != Reading.REGEX) {
            Habits.meant(text)
                    .ifPresent(expression -> ideas.add(idea(
                            "as the expression " + expression,
                            expression,
                            Reading.EXPRESSION,
                            asked.caseMode(),
                            asked.word())));
        }
        if (asked.reading() == Reading.PLAIN && !Filled.needed(text).isEmpty() && text.length() <= Filled.LONGEST) {
            ideas.add(idea(
                    "where values are filled in",
                    ExpressionPrinter.print(new TextClause.Filled(text)),
                    Reading.EXPRESSION,
                    asked.caseMode(),
                    false));
        }
        if (asked.caseMode() != CaseMode.IGNORE) {
            ideas.add(idea("ignoring case", text, asked.reading(), CaseMode.IGNORE, asked.word()));
        }
        if (asked.word()) {
            ideas.add(idea("also as part of longer words", text, asked.reading(), asked.caseMode(), false));
        }
        List<String> words = words(text);
        if (asked.reading() == Reading.PLAIN && words.size() > 1 && words.size() <= MOST_WORDS) {
            if (words.size() == 2) {
                ideas.add(idea(
                        "the words apart, on one line",
                        ExpressionPrinter.print(new TextClause.OnLine(
                                new TextClause.Text(words.getFirst()), new TextClause.Text(words.getLast()))),
                        Reading.EXPRESSION,
                        asked.caseMode(),
                        asked.word()));
            }
            ideas.add(idea(
                    "the words apart, anywhere in a file",
                    ExpressionPrinter.print(Query.and(words.stream()
                            .map(word -> (Query) new TextClause.Text(word))
                            .toList())),
                    Reading.EXPRESSION,
                    asked.caseMode(),
                    asked.word()));
        }
        if (asked.reading() != Reading.PLAIN) {
            ideas.add(idea("as plain text", text, Reading.PLAIN, asked.caseMode(), asked.word()));
        }
        if (asked.reading() != Reading.REGEX && text.codePoints().anyMatch(c -> ".*+?[](){}|^$\\".indexOf(c) >= 0)) {
            ideas.add(idea("as a regular expression", text, Reading.REGEX, asked.caseMode(), asked.word()));
        }
        if (asked.reading() != Reading.EXPRESSION
                && (text.indexOf('*') >= 0
                        || text.indexOf('"') >= 0
                        || text.contains("(")
                        || words.stream()
                                .anyMatch(word -> word.equalsIgnoreCase("or") || word.equalsIgnoreCase("and")))) {
            ideas.add(idea("as an expression", text, Reading.EXPRESSION, asked.caseMode(), asked.word()));
        }
        wider(ideas);
        return ideas;
    }

    private Idea idea(String change, String text, Reading reading, CaseMode caseMode, boolean word) {
        return new Idea(change, new TextQuery(text, reading, caseMode, word), scope);
    }

    /** Words in the sense of people: what stands between spaces. */
    private static List<String> words(String text) {
        List<String> words = Split.words(text);
        words.removeIf(String::isEmpty);
        return words;
    }

    private void wider(List<Idea> ideas) {
        for (ScopePart part : ScopePart.values()) {
            if (!scope.of(part).isEmpty()) {
                ideas.add(new Idea(part.lifted(), asked, scope.with(part, List.of())));
            }
        }
        if (asked.reading() == Reading.EXPRESSION) {
            withoutLimits()
                    .forEach((change, text) ->
                            ideas.add(idea(change, text, Reading.EXPRESSION, asked.caseMode(), asked.word())));
        }
    }

    /** The scope with a folder that does not exist replaced by one that does. */
    private List<Idea> folders(View view) {
        List<Idea> ideas = new ArrayList<>();
        for (String named : scope.of(ScopePart.UNDER)) {
            for (String nearest : NearestFolders.of(view, named)) {
                List<String> others = scope.of(ScopePart.UNDER).stream()
                        .map(one -> one.equals(named) ? nearest : one)
                        .toList();
                ideas.add(new Idea(
                        "under " + nearest + ", as there is no " + named, asked, scope.with(ScopePart.UNDER, others)));
            }
        }
        return ideas;
    }

    /** The expression without one of the limits that it names itself. */
    private Map<String, String> withoutLimits() {
        Map<String, String> wider = new LinkedHashMap<>();
        Query query = new TextQuery(asked.text(), Reading.EXPRESSION, CaseMode.AUTO, false)
                .understand(true)
                .query();
        if (query instanceof Query.And and) {
            for (Query part : and.parts()) {
                if (part.isOfFiles()) {
                    wider.put(
                            "without " + ExpressionPrinter.print(part),
                            ExpressionPrinter.print(Query.and(and.parts().stream()
                                    .filter(other -> other != part)
                                    .toList())));
                }
            }
        }
        return wider;
    }

    /** The text with a word replaced by one that the dictionaries have: words that they lack first. */
    private List<Idea> spellings(SearchContext context) {
        List<Idea> forUnknown = new ArrayList<>();
        List<Idea> forKnown = new ArrayList<>();
        String text = asked.reading() == Reading.REGEX ? "" : asked.text();
        for (int start = 0; start < text.length(); ) {
            int end = start;
            while (end < text.length() && Words.isWordPart(text.codePointAt(end))) {
                end += Character.charCount(text.codePointAt(end));
            }
            if (end - start >= SHORTEST_MISSPELT) {
                Spelling spelling = Spelling.of(context, text.substring(start, end));
                for (String nearest : spelling.nearest) {
                    (spelling.isKnown ? forKnown : forUnknown)
                            .add(idea(
                                    "\u201C" + nearest + "\u201D for \u201C" + text.substring(start, end) + "\u201D",
                                    text.substring(0, start) + nearest + text.substring(end),
                                    asked.reading(),
                                    CaseMode.IGNORE,
                                    asked.word()));
                }
            }
            start = end + (end < text.length() ? Character.charCount(text.codePointAt(end)) : 1);
        }
        List<Idea> ideas = forUnknown.isEmpty() ? forKnown : forUnknown;
        return ideas.subList(0, Math.min(MOST_SPELLINGS, ideas.size()));
    }

    /**
     * Words that are spelt like one, the nearest first, and of those the most frequent. The dictionaries of segments
     * also have words of files that the caller may not see, or that are gone: only what a search finds counts.
     */
    private record Spelling(boolean isKnown, List<String> nearest) {
        private record Near(String word, int edits, int files) {}

        static Spelling of(SearchContext context, String word) {
            int[] letters = CaseFolding.fold(word);
            String folded = new String(letters, 0, letters.length);
            Set<String> similar =
                    new TreeSet<>(Comparator.comparingInt((String other) -> EditDistance.of(folded, other))
                            .thenComparing(Comparator.naturalOrder()));
            similar.addAll(
                    context.pool().call(context.budget(), () -> similar(context.view(), folded, letters.length)));
            boolean isKnown = similar.remove(folded) && files(context, folded) > 0;
            List<Near> found = new ArrayList<>();
            for (String other : similar) {
                if (found.size() == MOST_COUNTED || context.budget().isOver()) {
                    break;
                }
                int files = files(context, other);
                if (files > 0) {
                    found.add(new Near(other, EditDistance.of(folded, other), files));
                }
            }
            return new Spelling(
                    isKnown,
                    found.stream()
                            .sorted(Comparator.comparingInt(Near::edits)
                                    .thenComparing(
                                            Comparator.comparingInt(Near::files).reversed())
                                    .thenComparing(Near::word))
                            .limit(MOST_SPELLINGS)
                            .map(Near::word)
                            .toList());
        }

        private static Set<String> similar(View view, String folded, int letters) {
            Set<String> similar = new HashSet<>();
            view.segments()
                    .forEach(
                            segment -> similar.addAll(segment.words().similar(folded, Plan.Similar.editsFor(letters))));
            return similar;
        }

        /** Number of files on the default branches that contain a word. */
        private static int files(SearchContext context, String word) {
            Query query =
                    new Query.Marked(Query.Mark.WORD, new Query.Marked(Query.Mark.ANYCASE, new TextClause.Text(word)));
            return LineSearch.counting(CompiledQuery.of(query, CaseMode.AUTO))
                    .run(context.apart())
                    .files();
        }
    }
}
