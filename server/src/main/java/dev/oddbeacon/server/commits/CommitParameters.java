package dev.oddbeacon.server.commits;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.commits.CommitSearch;
import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.access.SearchParameters;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.web.bind.annotation.BindParam;

/** The parameters of a search for commits, as they come in. What is absent is null. */
public record CommitParameters(
        @Parameter(description = "what the message or the people hold; without it all commits of the scope")
        String q,

        @Parameter(
                description =
                        "fragments (the default): each occurs, in any order; plain; regex; glob: words with * and ?; expression")
        String reading,

        @Parameter(
                name = "case",
                description = "auto (the default): case counts if the text has a capital; match; ignore")
        @BindParam("case")
        String caseName,

        @Parameter(description = "whether a match must not be part of a longer word")
        Boolean word,

        @Parameter(description = "name or address of the author or committer, or a part of it")
        List<String> by,

        @Parameter(description = "glob for folders or files that were changed")
        List<String> touches,

        @Parameter(description = "text of lines that were added")
        List<String> adds,

        @Parameter(description = "text of lines that were removed")
        List<String> removes,

        @Parameter(description = "committed from that day on: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago")
        String after,

        @Parameter(description = "committed before that day")
        String before,

        @Parameter(description = "most commits of a page, 1 to 1000 (50)")
        Integer limit,

        @Parameter(
                description =
                        "quick (the default): counts may be lower bounds where there are very many commits; exact")
        String counts,

        @Parameter(description = "\"next\" of the page before; kept for ten minutes")
        String cursor,

        @Parameter(description = "an id of the caller's choice: a newer search with it cancels the older one")
        String asker)
        implements SearchParameters {
    private static final int MOST = 1_000;

    enum CommitReading {
        FRAGMENTS,
        PLAIN,
        REGEX,
        GLOB,
        EXPRESSION
    }

    private enum Counting {
        QUICK,
        EXACT
    }

    private boolean countsExactly() {
        return Parameters.oneOf(Counting.values(), "counts", counts) == Counting.EXACT;
    }

    CommitReading textReading() {
        return Parameters.oneOf(CommitReading.values(), "reading", reading);
    }

    private CaseMode caseMode() {
        return Parameters.oneOf(CaseMode.values(), "case", caseName);
    }

    String text() {
        return Parameters.orEmpty(q);
    }

    /** The parameters of a search for commits, without the scope. */
    Query query() {
        List<Query> parts = new ArrayList<>();
        parts.add(textQuery());
        add(parts, by, text -> new CommitCondition.Mentions(CommitCondition.Where.BY, new TextClause.Text(text)));
        add(parts, touches, CommitCondition.Touches::new);
        add(
                parts,
                adds,
                text -> new CommitCondition.Mentions(CommitCondition.Where.ADDS, TextClause.Text.pasted(text)));
        add(
                parts,
                removes,
                text -> new CommitCondition.Mentions(CommitCondition.Where.REMOVES, TextClause.Text.pasted(text)));
        add(parts, after == null ? List.of() : List.of(after), day -> committed(CommitCondition.Side.AFTER, day));
        add(parts, before == null ? List.of() : List.of(before), day -> committed(CommitCondition.Side.BEFORE, day));
        return Query.and(parts);
    }

    private static Query committed(CommitCondition.Side side, String day) {
        Days.check(day);
        return new CommitCondition.Committed(side, day.strip());
    }

    private static void add(List<Query> parts, List<String> values, Function<String, Query> query) {
        List<Query> given = values == null
                ? List.of()
                : values.stream().filter(value -> !value.isBlank()).map(query).toList();
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
            case FRAGMENTS ->
                Query.and(Split.words(text).stream()
                        .map(fragment -> (Query) new TextClause.Text(fragment))
                        .toList());
            case GLOB ->
                Query.and(Split.words(text).stream()
                        .map(glob -> glob.indexOf('*') < 0 && glob.indexOf('?') < 0
                                ? new TextClause.Text(glob)
                                : (Query) new TextClause.Wildcard(glob))
                        .toList());
            case PLAIN -> TextClause.Text.pasted(text);
            case REGEX ->
                new TextQuery(text, Reading.REGEX, CaseMode.AUTO, false)
                        .understand(false)
                        .query();
            case EXPRESSION ->
                new TextQuery(text, Reading.EXPRESSION, CaseMode.AUTO, false)
                        .understand(false)
                        .query();
        };
        return whole ? new Query.Marked(Query.Mark.WORD, query) : query;
    }

    /** The search for the commits of a scope. */
    CommitSearch search(Scope scope) {
        Query query = Query.and(List.of(scope.with(ScopePart.EXCEPT, List.of()).query(), query()));
        return new CommitSearch(query, caseMode(), from().map(Cursor::passed).orElse(0), most(), countsExactly());
    }

    private int most() {
        return Parameters.range("limit", limit, 50, 1, MOST);
    }

    Optional<Cursor> from() {
        return Cursor.parse(Cursor.Kind.COMMITS, cursor);
    }

    String askerId() {
        return Parameters.orEmpty(asker);
    }

    @Override
    public List<Result> results(CallerContext context, ScopeParameters within, int most) {
        Query query = Query.and(
                List.of(context.scope(within).with(ScopePart.EXCEPT, List.of()).query(), query()));
        return new CommitSearch(query, caseMode(), 0, most, false)
                .run(context.search()).page().stream()
                        .map(found -> new Result(
                                found.repository(),
                                null,
                                found.commit().id().toString(),
                                null,
                                null,
                                null,
                                Commit.summary(found.commit().message())))
                        .toList();
    }

    @Override
    public Query query(CallerContext context, ScopeParameters within) {
        return Query.and(List.of(context.scope(within).query(), query()));
    }
}
