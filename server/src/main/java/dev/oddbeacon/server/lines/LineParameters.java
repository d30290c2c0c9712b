package dev.oddbeacon.server.lines;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.lines.LineSearch.Order;
import dev.oddbeacon.core.lines.LineSearch.Show;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.InHand;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.access.SearchParameters;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.BindParam;

/** The parameters of a search for lines, as they come in. What is absent is null; the methods know the defaults. */
public record LineParameters(
        @Parameter(description = "the text to look for", required = true)
        String q,

        @Parameter(
                description =
                        "plain (the default): the whole text, literally; regex: RE2 syntax, within a line; expression: words and clauses joined by and, or, not")
        String reading,

        @Parameter(
                name = "case",
                description = "auto (the default): case counts if the text has a capital; match; ignore")
        @BindParam("case")
        String caseName,

        @Parameter(description = "whether a match must not be part of a longer word")
        Boolean word,

        @Parameter(description = "whether to find the files that lack it")
        Boolean without,

        @Parameter(description = "lines (the default), files: without excerpts, limit counts files; counts: neither")
        String only,

        @Parameter(description = "path (the default), relevance: the likeliest first, recent: by their last change")
        String order,

        @Parameter(
                description =
                        "a file, as repository/path: files close to it come first, the likeliest of those equally close")
        String near,

        @Parameter(
                description =
                        "most hits that are shown of each file, 1 to 1000, with the declaration of what is searched "
                                + "for among them; the rest is on no page (all)")
        Integer perFile,

        @Parameter(description = "lines around each hit, 0 to 50 (2)")
        Integer context,

        @Parameter(description = "most hits of a page, 1 to 1000 (100)")
        Integer limit,

        @Parameter(description = "\"next\" of the page before; kept for ten minutes")
        String cursor,

        @Parameter(description = "quick (the default): counts may be lower bounds; exact")
        String counts,

        @Parameter(description = "whether an expression of which only the end is missing is taken as far as it goes")
        Boolean typing,

        @Parameter(description = "whether to tell how the answer came about")
        Boolean explain,

        @Parameter(description = "whether lines say what of them is a comment or a string")
        Boolean regions,

        @Parameter(description = "an id of the caller's choice: a newer search with it cancels the older one")
        String asker)
        implements SearchParameters {
    private static final int MOST_HITS = 1_000;
    private static final int MOST_CONTEXT = 50;

    private enum Only {
        LINES,
        FILES,
        COUNTS
    }

    private enum Counting {
        QUICK,
        EXACT
    }

    public TextQuery textQuery() {
        if (q == null) {
            throw new BadRequestException("The parameter q is missing. Give the text to look for.");
        }
        return new TextQuery(
                q,
                Parameters.oneOf(Reading.values(), "reading", reading),
                Parameters.oneOf(CaseMode.values(), "case", caseName),
                Parameters.isTrue(word));
    }

    /** The parameters of a search for lines, without the scope. */
    Query query() {
        return within(
                Scope.EVERYTHING, textQuery().understand(takesUnfinished()).query());
    }

    Query within(Scope scope, Query text) {
        return scope.around(Parameters.isTrue(without) ? new Query.Not(text) : text);
    }

    /** The search for a query. @param from where its page starts; empty for the first */
    LineSearch search(Query query, Optional<Cursor> from, CallerContext context) {
        return new LineSearch(
                CompiledQuery.of(query, CaseMode.AUTO),
                most(),
                contextLines(),
                from.map(Cursor::position).orElse(LineAnswer.Position.START),
                countsExactly(),
                ordering(),
                show(),
                ofEachFile(),
                inHand(context));
    }

    boolean takesUnfinished() {
        return Parameters.isTrue(typing);
    }

    boolean explains() {
        return Parameters.isTrue(explain);
    }

    int contextLines() {
        return Parameters.range("context", context, 2, 0, MOST_CONTEXT);
    }

    public int most() {
        return Parameters.range("limit", limit, 100, 1, MOST_HITS);
    }

    int ofEachFile() {
        return perFile == null ? LineSearch.ALL : Parameters.range("perFile", perFile, 1, 1, MOST_HITS);
    }

    boolean countsExactly() {
        return Parameters.oneOf(Counting.values(), "counts", counts) == Counting.EXACT;
    }

    Order ordering() {
        return near == null || order != null ? Parameters.oneOf(Order.values(), "order", order) : Order.RELEVANCE;
    }

    /** The file that is in hand, if its repository is seen. */
    Optional<FileInHand> inHand(CallerContext context) {
        return InHand.of(context, near, ordering() == Order.RELEVANCE);
    }

    Show show() {
        Show show = switch (Parameters.oneOf(Only.values(), "only", only)) {
            case LINES -> Show.LINES;
            case FILES -> Show.FILES;
            case COUNTS -> Show.COUNTS;
        };
        return show == Show.LINES && Parameters.isTrue(regions) ? Show.LINES_WITH_REGIONS : show;
    }

    public String askerId() {
        return Parameters.orEmpty(asker);
    }

    public Optional<Cursor> from(Cursor.Kind kind) {
        return Cursor.parse(kind, cursor);
    }

    @Override
    public List<Result> results(CallerContext context, ScopeParameters within, int most) {
        LineSearch search = new LineSearch(
                CompiledQuery.of(query(context, within), CaseMode.AUTO),
                most,
                0,
                LineAnswer.Position.START,
                false,
                Order.PATH,
                show() == Show.COUNTS ? Show.LINES : show());
        LineAnswer answer = search.run(context.search());
        View view = context.view();
        return answer.page().stream()
                .flatMap(file -> {
                    Branch branch = view.branch(file.branchNumber());
                    String path = view.snapshot(file.branchNumber()).path(file.file());
                    List<Result> lines = file.excerpts().stream()
                            .flatMap(excerpt -> excerpt.lines().stream())
                            .filter(Excerpt.Line::isHit)
                            .map(line -> result(branch, path, line.number(), line.text()))
                            .toList();
                    return lines.isEmpty() ? Stream.of(result(branch, path, null, null)) : lines.stream();
                })
                .toList();
    }

    private static Result result(Branch branch, String path, Integer line, String text) {
        return new Result(branch.repository(), branch.name(), branch.commit(), path, line, null, text);
    }

    @Override
    public Query query(CallerContext context, ScopeParameters within) {
        ordering();
        show();
        return within(context.scope(within), textQuery().understand(false).query());
    }
}
