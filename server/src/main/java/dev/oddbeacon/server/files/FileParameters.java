package dev.oddbeacon.server.files;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.files.FileSearch.Kind;
import dev.oddbeacon.core.files.FileSearch.Order;
import dev.oddbeacon.core.files.FileSearch.PathReading;
import dev.oddbeacon.core.files.FileSearch.Sizes;
import dev.oddbeacon.core.files.FileSearch.Sorting;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.expression.ByteSizes;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.scope.Scope;
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
import org.springframework.web.bind.annotation.BindParam;

/** The parameters of a search for files, as they come in. What is absent is null. */
public record FileParameters(
        @Parameter(description = "what the path holds; without it all files of the scope")
        String q,

        @Parameter(
                description =
                        "fragments (the default): each occurs, in any order, or few do and paths with their letters follow; plain; regex; glob: for the whole path, or the name if it has no slash; expression")
        String reading,

        @Parameter(name = "case", description = "for plain, regex and expression: auto (the default), match, ignore")
        @BindParam("case")
        String caseName,

        @Parameter(description = "file (the default) or folder")
        String kind,

        @Parameter(description = "+10k: at least; -1M: at most; with k, M or G of 1,000 bytes and so on")
        String size,

        @Parameter(
                description =
                        "relevance (the default), path, name, type, lines and size: the largest first, recent: by their last change")
        String order,

        @Parameter(description = "whether the order is the other way round")
        Boolean reversed,

        @Parameter(
                description =
                        "a file, as repository/path: files close to it come first, the likeliest of those equally close")
        String near,

        @Parameter(
                description =
                        "a file, as repository/path, that comes first in the order of relevance if it is found; the first of 100 counts most")
        List<String> opened,

        @Parameter(description = "most files, 1 to 1000 (100)")
        Integer limit,

        @Parameter(description = "\"next\" of the page before; kept for ten minutes")
        String cursor)
        implements SearchParameters {
    private static final int MOST_FILES = 1_000;
    private static final int MOST_OPENED = 100;
    private static final Pattern SIZE = Pattern.compile("([+-])([0-9]{1,12}[kKmMgG]?)");

    /** The search, from where its cursor says. */
    FileSearch search(CallerContext context, ScopeParameters within) {
        return search(
                context.scope(within),
                from().map(Cursor::passed).orElse(0),
                Parameters.range("limit", limit, 100, 1, MOST_FILES),
                InHand.of(context, near, ordering() == Order.RELEVANCE));
    }

    private Order ordering() {
        return Parameters.oneOf(Order.values(), "order", order);
    }

    private FileSearch search(Scope scope, int from, int most, Optional<FileInHand> inHand) {
        String text = q == null ? "" : q;
        TextQuery.check(text);
        return new FileSearch(
                text,
                Parameters.oneOf(PathReading.values(), "reading", reading),
                Parameters.oneOf(CaseMode.values(), "case", caseName),
                scope,
                Parameters.oneOf(Kind.values(), "kind", kind),
                sizes(),
                new Sorting(
                        ordering(),
                        Parameters.isTrue(reversed),
                        opened == null ? List.of() : opened.subList(0, Math.min(MOST_OPENED, opened.size())),
                        inHand),
                from,
                most);
    }

    Optional<Cursor> from() {
        return Cursor.parse(Cursor.Kind.FILES, cursor);
    }

    private Sizes sizes() {
        if (size == null || size.isEmpty()) {
            return Sizes.ANY;
        }
        Matcher matcher = SIZE.matcher(size.replace(' ', '+')); // a plus that was not encoded arrives as a space
        if (!matcher.matches()) {
            throw new BadRequestException("size is \"" + size
                    + "\"; it must be +, for at least, or -, for at most, and a number with k, M or G: +10k.");
        }
        long bytes = ByteSizes.parse(matcher.group(2)).orElseThrow();
        return matcher.group(1).equals("+") ? new Sizes(bytes, Long.MAX_VALUE) : new Sizes(0, bytes);
    }

    @Override
    public List<Result> results(CallerContext context, ScopeParameters within, int most) {
        View view = context.view();
        return search(context.scope(within), 0, most, Optional.empty()).run(context.search()).page().stream()
                .map(found -> {
                    Branch branch = view.branch(found.branchNumber());
                    return new Result(
                            branch.repository(), branch.name(), branch.commit(), found.path(), null, null, null);
                })
                .toList();
    }

    @Override
    public Query query(CallerContext context, ScopeParameters within) {
        return search(context, within).query();
    }
}
