package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.snapshot.View;
import java.time.Duration;
import java.time.Instant;

/**
 * All that a request may look at and use: opened for its caller, closed at its end. There is no other way to the index,
 * so nothing that a caller may not see can be reached by forgetting to ask.
 *
 * <p>Concurrency: the threads of the pool may share one; it is closed by the thread that opened it, when they are
 * through.
 */
public final class SearchContext implements AutoCloseable {
    private final View view;
    private final Exclusions exclusions;
    private final Instant now;
    private final Budget budget;
    private final SearchPool pool;
    private final Runnable atEnd;

    /**
     * @param view what the caller may see
     * @param now the moment of the request, from which days are counted back
     * @param atEnd what closing does
     */
    public SearchContext(
            View view, Exclusions exclusions, Instant now, Budget budget, SearchPool pool, Runnable atEnd) {
        this.view = view;
        this.exclusions = exclusions;
        this.now = now;
        this.budget = budget;
        this.pool = pool;
        this.atEnd = atEnd;
    }

    public View view() {
        return view;
    }

    /** The exclusion sets as they were when the request began. */
    public Exclusions exclusions() {
        return exclusions;
    }

    public Instant now() {
        return now;
    }

    public Budget budget() {
        return budget;
    }

    public SearchPool pool() {
        return pool;
    }

    /** The limits that a query's conditions put on the files of the view. */
    public Limits limits(CompiledQuery query) {
        return new Limits(view, query, exclusions, now);
    }

    /** A context for a part of the request with less time. It need not be closed. */
    public SearchContext within(Duration time) {
        return new SearchContext(view, exclusions, now, budget.part(time), pool, () -> {});
    }

    /** A context for some of the repositories. It need not be closed. @param repositories a part of the view */
    public SearchContext of(View repositories) {
        return new SearchContext(repositories, exclusions, now, budget, pool, () -> {});
    }

    /** A context for a part of the request that runs beside others: that it needs too much memory ends it alone. */
    public SearchContext apart() {
        return within(Duration.ofDays(1));
    }

    @Override
    public void close() {
        atEnd.run();
    }
}
