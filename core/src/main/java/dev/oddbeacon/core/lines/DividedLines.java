package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.lines.LineAnswer.Position;
import dev.oddbeacon.core.lines.LineSearch.Order;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.search.Dividable;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.NamedFile;
import dev.oddbeacon.core.snapshot.View;
import java.util.List;
import java.util.Optional;

/**
 * A search for lines that can be done in parts: of the files that these found first, the page is made.
 *
 * @param query that it searches for
 */
public record DividedLines(LineSearch search, Query query) implements Dividable<LineAnswer, LinesFound> {
    /** A further page starts at a place of one view. */
    @Override
    public boolean canBeDivided() {
        return search.from().equals(Position.START) && query.isOfEachRepository();
    }

    @Override
    public boolean asksOfPasts() {
        return search.order() == Order.RECENT || query.asksOfPasts();
    }

    @Override
    public LineAnswer run(SearchContext context) {
        return search.run(context);
    }

    @Override
    public Optional<Stop> stopped(LineAnswer answer) {
        return answer.stopped();
    }

    @Override
    public LinesFound find(SearchContext context) {
        LineAnswer answer = search.run(context);
        return new LinesFound(
                answer.counts().trimmed(),
                answer.first()
                        .mapToObj(place -> NamedFile.of(context.view(), place))
                        .toList());
    }

    @Override
    public boolean isIn(LinesFound part, View view) {
        return part.first().stream().allMatch(file -> file.place(view).isPresent());
    }

    @Override
    public LineAnswer answer(List<LinesFound> parts, SearchContext context) {
        long[] first = parts.stream()
                .flatMap(part -> part.first().stream())
                .mapToLong(file -> file.place(context.view()).orElseThrow())
                .sorted()
                .toArray();
        return search.pageOf(first, context)
                .with(LineCounts.merged(parts.stream().map(LinesFound::counts).toList()));
    }
}
