package dev.oddbeacon.server.search;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.LineSearch.Order;
import dev.oddbeacon.core.search.LineSearch.Show;
import dev.oddbeacon.core.search.Scope;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.BindParam;

/** The parameters of a search for lines, as they come in. What is absent is null; the methods know the defaults. */
public record LineParameters(
        @Parameter(description = "the text to look for", required = true) String q,
        @Parameter(description = "plain (the default): the whole text, literally; regex: RE2 syntax, within a line; expression: words and clauses joined by and, or, not") String reading,
        @Parameter(name = "case", description = "auto (the default): case counts if the text has a capital; match; ignore") @BindParam("case") String caseName,
        @Parameter(description = "whether a match must not be part of a longer word") Boolean word,
        @Parameter(description = "whether to find the files that lack it") Boolean without,
        @Parameter(description = "lines (the default), files: without excerpts, limit counts files; counts: neither") String only,
        @Parameter(description = "path (the default), relevance, recent: by their last change") String order,
        @Parameter(description = "lines around each hit, 0 to 50 (2)") Integer context,
        @Parameter(description = "most hits of a page, 1 to 1000 (100)") Integer limit,
        @Parameter(description = "\"next\" of the page before; kept for ten minutes") String cursor,
        @Parameter(description = "quick (the default): counts may be lower bounds; exact") String counts,
        @Parameter(description = "whether an expression of which only the end is missing is taken as far as it goes") Boolean typing,
        @Parameter(description = "whether to tell how the answer came about") Boolean explain,
        @Parameter(description = "whether lines say what of them is a comment or a string") Boolean regions,
        @Parameter(description = "an id of the caller's choice: a newer search with it cancels the older one") String asker) {
    private static final int MOST_HITS = 1_000;
    private static final int MOST_CONTEXT = 50;

    private enum Only {
        LINES, FILES, COUNTS
    }

    private enum Counting {
        QUICK, EXACT
    }

    public TextQuery textQuery() {
        if (q == null) {
            throw new IllegalArgumentException("The parameter q is missing. Give the text to look for.");
        }
        return new TextQuery(q, oneOf(Reading.values(), "reading", reading), oneOf(CaseMode.values(), "case", caseName), isTrue(word));
    }

    /** What is asked, without its scope. */
    Query query() {
        return within(Scope.EVERYTHING, textQuery().understand(takesUnfinished()).query());
    }

    Query within(Scope scope, Query text) {
        return scope.around(isTrue(without) ? new Query.Not(text) : text);
    }

    boolean takesUnfinished() {
        return isTrue(typing);
    }

    boolean explains() {
        return isTrue(explain);
    }

    int contextLines() {
        return range("context", context, 2, 0, MOST_CONTEXT);
    }

    public int most() {
        return range("limit", limit, 100, 1, MOST_HITS);
    }

    boolean countsExactly() {
        return oneOf(Counting.values(), "counts", counts) == Counting.EXACT;
    }

    Order ordering() {
        return oneOf(Order.values(), "order", order);
    }

    Show show() {
        Show show = switch (oneOf(Only.values(), "only", only)) {
            case LINES -> Show.LINES;
            case FILES -> Show.FILES;
            case COUNTS -> Show.COUNTS;
        };
        return show == Show.LINES && isTrue(regions) ? Show.LINES_WITH_REGIONS : show;
    }

    public String askerId() {
        return asker == null ? "" : asker;
    }

    public String from() {
        return cursor == null ? "" : cursor;
    }

    private static boolean isTrue(Boolean value) {
        return Boolean.TRUE.equals(value);
    }

    public static int range(String name, Integer value, int otherwise, int low, int high) {
        int number = value == null ? otherwise : value;
        if (number < low || number > high) {
            throw new IllegalArgumentException(name + " is " + number + "; it must be from " + low + " to " + high + ".");
        }
        return number;
    }

    /** The value of a name; the first if there is no name. */
    public static <T extends Enum<T>> T oneOf(T[] values, String parameter, String name) {
        if (name == null || name.isEmpty()) {
            return values[0];
        }
        return Arrays.stream(values).filter(value -> value.name().toLowerCase(Locale.ROOT).equals(name)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException(parameter + " is \"" + name + "\"; it must be one of "
                        + Arrays.stream(values).map(value -> value.name().toLowerCase(Locale.ROOT)).collect(Collectors.joining(", ")) + "."));
    }
}
