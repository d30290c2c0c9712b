package dev.oddbeacon.server.access;

import dev.oddbeacon.core.query.Query;

/** The parameters of a search, beside its scope. */
public interface SearchParameters {
    /**
     * What they ask for; names in it are not checked.
     *
     * @throws dev.oddbeacon.core.query.InvalidQueryException if no such search can be run, with what to change
     * @throws dev.oddbeacon.server.web.BadRequestException the same
     */
    Query query(CallerContext context, ScopeParameters within);
}
