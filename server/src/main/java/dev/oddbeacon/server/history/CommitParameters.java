package dev.oddbeacon.server.history;

import static dev.oddbeacon.server.search.LineParameters.oneOf;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.server.search.LineParameters;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import org.springframework.web.bind.annotation.BindParam;

/** The parameters of a search for commits, as they come in. What is absent is null. */
record CommitParameters(
        @Parameter(description = "what the message or the people hold; without it all commits of the scope") String q,
        @Parameter(description = "fragments (the default): each occurs, in any order; plain; regex; glob: words with * and ?; expression") String reading,
        @Parameter(name = "case", description = "auto (the default): case counts if the text has a capital; match; ignore") @BindParam("case") String caseName,
        @Parameter(description = "whether a match must not be part of a longer word") Boolean word,
        @Parameter(description = "name or address of the author or committer, or a part of it") List<String> by,
        @Parameter(description = "glob for folders or files that were changed") List<String> touches,
        @Parameter(description = "text of lines that were added") List<String> adds,
        @Parameter(description = "text of lines that were removed") List<String> removes,
        @Parameter(description = "committed from that day on: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago") String after,
        @Parameter(description = "committed before that day") String before,
        @Parameter(description = "most commits of a page, 1 to 1000 (50)") Integer limit,
        @Parameter(description = "quick (the default): counts may be lower bounds where there are very many commits; exact") String counts,
        @Parameter(description = "\"next\" of the page before; kept for ten minutes") String cursor,
        @Parameter(description = "an id of the caller's choice: a newer search with it cancels the older one") String asker) {
    private static final int MOST = 1_000;

    enum CommitReading {
        FRAGMENTS, PLAIN, REGEX, GLOB, EXPRESSION
    }

    private enum Counting {
        QUICK, EXACT
    }

    boolean countsExactly() {
        return oneOf(Counting.values(), "counts", counts) == Counting.EXACT;
    }

    CommitReading textReading() {
        return oneOf(CommitReading.values(), "reading", reading);
    }

    CaseMode caseMode() {
        return oneOf(CaseMode.values(), "case", caseName);
    }

    String text() {
        return q == null ? "" : q;
    }

    /** What is asked, without the scope. */
    Query query() {
        List<Query> parts = new ArrayList<>();
        parts.add(textQuery());
        add(parts, by, text -> new Query.OfCommits(Query.Ask.BY, new Query.Text(text)));
        add(parts, touches, Query.Touches::new);
        add(parts, adds, text -> new Query.OfCommits(Query.Ask.ADDS, Query.Text.pasted(text)));
        add(parts, removes, text -> new Query.OfCommits(Query.Ask.REMOVES, Query.Text.pasted(text)));
        add(parts, after == null ? List.of() : List.of(after), day -> when(Query.Time.AFTER, day));
        add(parts, before == null ? List.of() : List.of(before), day -> when(Query.Time.BEFORE, day));
        return Query.and(parts);
    }

    private static Query when(Query.Time time, String day) {
        Days.start(day, Instant.now());
        return new Query.When(time, day.strip());
    }

    private static void add(List<Query> parts, List<String> values, Function<String, Query> query) {
        List<Query> given = values == null ? List.of() : values.stream().filter(value -> !value.isBlank()).map(query).toList();
        if (!given.isEmpty()) {
            parts.add(Query.or(given));
        }
    }

    private Query textQuery() {
        String text = text();
        TextQuery.check(text);
        if (text.isBlank()) {
            return Query.EVERYTHING;
        }
        boolean whole = Boolean.TRUE.equals(word);
        Query query = switch (textReading()) {
            case FRAGMENTS -> Query.and(Arrays.stream(text.strip().split("\\s+")).map(fragment -> (Query) new Query.Text(fragment)).toList());
            case GLOB -> Query.and(Arrays.stream(text.strip().split("\\s+")).map(glob -> glob.matches("[^*?]*") ? new Query.Text(glob) : (Query) new Query.Wildcard(glob)).toList());
            case PLAIN -> Query.Text.pasted(text);
            case REGEX -> new TextQuery(text, Reading.REGEX, CaseMode.AUTO, false).understand(false).query();
            case EXPRESSION -> new TextQuery(text, Reading.EXPRESSION, CaseMode.AUTO, false).understand(false).query();
        };
        return whole ? new Query.Marked(Query.Mark.WORD, query) : query;
    }

    int most() {
        return LineParameters.range("limit", limit, 50, 1, MOST);
    }

    String from() {
        return cursor == null ? "" : cursor;
    }

    String askerId() {
        return asker == null ? "" : asker;
    }
}
