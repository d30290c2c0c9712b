package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.access.SearchParameters;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.List;

/** A scope that is kept under a name without a search, to be picked in others. */
public record ScopeAlone() implements SearchParameters {

    @Override
    public Query query(CallerContext context, ScopeParameters within) {
        return context.scope(within).query();
    }

    @Override
    public List<Result> results(CallerContext context, ScopeParameters within, int most) {
        throw new BadRequestException("A scope alone finds nothing. Pick it in a search.");
    }
}
