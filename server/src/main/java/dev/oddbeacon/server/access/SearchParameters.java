package dev.oddbeacon.server.access;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.query.Query;
import java.util.List;

/** The parameters of a search, beside its scope. */
public interface SearchParameters {
    /**
     * What they ask for; names in it are not checked.
     *
     * @throws dev.oddbeacon.core.query.InvalidQueryException if no such search can be run, with what to change
     * @throws dev.oddbeacon.server.web.BadRequestException the same
     */
    Query query(CallerContext context, ScopeParameters within);

    /**
     * All that they find, in no page, in the order of repositories, branches, paths and lines.
     *
     * @param most after which it ends; more may be there if that many are answered
     */
    List<Result> results(CallerContext context, ScopeParameters within, int most);
}
