package dev.oddbeacon.server.search;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.FileSearch;
import dev.oddbeacon.core.search.LineAnswer;
import dev.oddbeacon.core.search.LineSearch;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.index.LiveIndex;
import dev.oddbeacon.server.web.GoneException;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import jakarta.annotation.PreDestroy;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/...} */
@RestController
@RequestMapping("/api/v1/search")
class SearchController {
    private static final int MOST_HITS = 1_000;
    private static final int MOST_CONTEXT = 50;

    private final Settings settings;
    private final LiveIndex index;
    private final Asked asked;
    private final SearchPool pool = new SearchPool(Math.max(1, Runtime.getRuntime().availableProcessors()));
    private final Map<String, Budget> latestOfAsker = new ConcurrentHashMap<>();

    SearchController(Settings settings, LiveIndex index, Asked asked) {
        this.settings = settings;
        this.index = index;
        this.asked = asked;
    }

    @Operation(summary = "Lines that match a text",
            description = "Hits are ordered by repository, branch, path and line. Each hit counts once for each repository, branch and path.")
    @GetMapping("/lines")
    LinesAnswer lines(
            @Parameter(description = "the text to look for") @RequestParam String q,
            @Parameter(description = "plain: the whole text, literally; regex: RE2 syntax, within a line") @RequestParam(defaultValue = "plain") String reading,
            @Parameter(name = "case", description = "auto: case counts if the text has a capital; match; ignore")
            @RequestParam(name = "case", defaultValue = "auto") String caseName,
            @Parameter(description = "whether a match must not be part of a longer word") @RequestParam(defaultValue = "false") boolean word,
            @Parameter(description = "glob for names of repositories; several mean or") @RequestParam(defaultValue = "") List<String> repo,
            @Parameter(description = "glob for labels of repositories") @RequestParam(defaultValue = "") List<String> label,
            @Parameter(description = "glob for branches and tags; without it each repository's default branch") @RequestParam(defaultValue = "") List<String> branch,
            @Parameter(description = "glob for folders or files; with a slash from the root of the repository") @RequestParam(defaultValue = "") List<String> under,
            @Parameter(description = "lines around each hit, 0 to 50") @RequestParam(defaultValue = "2") int context,
            @Parameter(description = "most hits of a page, 1 to 1000") @RequestParam(defaultValue = "100") int limit,
            @Parameter(description = "\"next\" of the page before; kept for ten minutes") @RequestParam(defaultValue = "") String cursor,
            @Parameter(description = "quick: counts may be lower bounds; exact") @RequestParam(defaultValue = "quick") String counts,
            @Parameter(description = "an id of the caller's choice: a newer search with it cancels the older one") @RequestParam(defaultValue = "") String asker) {
        long start = System.nanoTime();
        TextQuery query = new TextQuery(q, oneOf(Reading.values(), "reading", reading), oneOf(CaseMode.values(), "case", caseName), word);
        range("context", context, 0, MOST_CONTEXT);
        range("limit", limit, 1, MOST_HITS);
        boolean exact = oneOf(Counting.values(), "counts", counts) == Counting.EXACT;
        TextMatcher matcher = TextMatcher.of(query);
        Scope scope = asked.scope(repo, label, branch, under);
        Optional<Cursor> from = cursor.isEmpty() ? Optional.empty() : Optional.of(Cursor.parse(cursor));
        LinesAnswer.IndexState state = asked.state(scope);
        View view = from.isPresent() ? index.acquire(from.get().view()).orElseThrow(() -> new GoneException(
                "The cursor is older than ten minutes and the index has changed since. Search again from the start.")) : index.acquire();
        Budget budget = budget(asker);
        try {
            LineAnswer answer = new LineSearch(matcher, scope, limit, context, from.map(Cursor::position).orElse(LineAnswer.Position.START), exact, budget)
                    .run(view, pool);
            Optional<String> next = answer.next().map(position -> new Cursor(view.number(), position).toString());
            if (next.isPresent()) {
                index.keep(view);
            }
            return Answers.lines(query, state, view, answer, next, millisSince(start));
        } finally {
            latestOfAsker.remove(asker, budget);
            view.release();
        }
    }

    @Operation(summary = "Files whose path holds all fragments", description = "Skipped files are found as well. Without a text, all files of the scope.")
    @GetMapping("/files")
    FilesAnswer files(@RequestParam(defaultValue = "") String q, @RequestParam(defaultValue = "") List<String> repo,
            @RequestParam(defaultValue = "") List<String> label, @RequestParam(defaultValue = "") List<String> branch,
            @RequestParam(defaultValue = "") List<String> under, @RequestParam(defaultValue = "100") int limit) {
        long start = System.nanoTime();
        range("limit", limit, 1, MOST_HITS);
        if (q.length() > TextQuery.LONGEST) {
            throw new IllegalArgumentException("The search text has " + q.length() + " characters; at most " + TextQuery.LONGEST + " are taken.");
        }
        Scope scope = asked.scope(repo, label, branch, under);
        View view = index.acquire();
        try {
            return Answers.files(asked.state(scope), view, new FileSearch(q, scope, limit).run(view), millisSince(start));
        } finally {
            view.release();
        }
    }

    private enum Counting {
        QUICK, EXACT
    }

    private Budget budget(String asker) {
        Budget budget = new Budget(settings.searchTime());
        if (!asker.isEmpty()) {
            Budget older = latestOfAsker.put(asker, budget);
            if (older != null) {
                older.cancel();
            }
        }
        return budget;
    }

    private static double millisSince(long start) {
        return Math.round((System.nanoTime() - start) / 10_000.0) / 100.0;
    }

    private static void range(String name, int value, int low, int high) {
        if (value < low || value > high) {
            throw new IllegalArgumentException(name + " is " + value + "; it must be from " + low + " to " + high + ".");
        }
    }

    private static <T extends Enum<T>> T oneOf(T[] values, String name, String text) {
        return Arrays.stream(values).filter(value -> value.name().toLowerCase(Locale.ROOT).equals(text)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException(name + " is \"" + text + "\"; it must be one of "
                        + Arrays.stream(values).map(value -> value.name().toLowerCase(Locale.ROOT)).collect(Collectors.joining(", ")) + "."));
    }

    @PreDestroy
    void close() {
        pool.close();
    }
}
