package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.access.SearchParameters;
import dev.oddbeacon.server.web.BusyException;
import dev.oddbeacon.server.web.TooLargeException;
import java.util.List;
import java.util.Optional;

/** Runs a saved search to its end, for those who want all that it finds. */
public final class SearchRuns {
    /** Most results of a search that are kept, compared or watched. */
    public static final int MOST = 200_000;

    private SearchRuns() {}

    /** @param complete whether all repositories of its scope are indexed */
    public record Run(List<Result> results, boolean complete) {}

    /**
     * All that a search finds, as far as its context sees.
     *
     * @param repository if only one is looked at
     * @throws dev.oddbeacon.core.query.InvalidQueryException if it cannot be run any more
     * @throws dev.oddbeacon.server.web.BadRequestException the same
     * @throws TooLargeException if it finds more than {@link #MOST}
     * @throws BusyException if it takes longer than it may
     */
    public static Run run(CallerContext context, KnownSearch search, Optional<String> repository) {
        SearchParameters parameters = Subjects.filled(search.subject(), search.parameters());
        Optional<ScopeParameters> scope = Optional.of(Subjects.scope(search.parameters()));
        if (repository.isPresent()) {
            scope = scope.get().within(repository.get());
        }
        if (scope.isEmpty()) {
            return new Run(List.of(), true);
        }
        Query query = parameters.query(context, scope.get());
        if (repository.isEmpty()) {
            context.check(query);
        }
        List<Result> results = parameters.results(context, scope.get(), MOST + 1);
        if (context.search().budget().stop().isPresent()) {
            throw new BusyException("Not all that " + search.name()
                    + " finds could be looked through in the time a search may take. Narrow its scope or its text.");
        }
        if (results.size() > MOST) {
            throw new TooLargeException(search.name() + " finds more than " + MOST
                    + " results; only so many are kept or compared. Narrow its scope or its text.");
        }
        return new Run(results, (search.isOfPast() ? context.stateOfPast(query) : context.state(query)).complete());
    }
}
