package dev.oddbeacon.core.search;

import dev.oddbeacon.core.snapshot.View;
import java.util.List;
import java.util.Optional;

/**
 * A search that can be done in parts, each of some repositories, at other places as well; what these found makes the
 * same answer as if it were done at once.
 *
 * @param <A> its answer
 * @param <P> what is found in a part, as it goes from place to place in JSON
 */
public interface Dividable<A, P> {
    /** Up to where a part tells what may stand on the page, in results. */
    int MOST_TOLD = 10_000;

    /** Whether it can be put together from parts. */
    boolean canBeDivided();

    /** Whether what it finds depends on commits, not only on the text that is there. */
    boolean asksOfPasts();

    /** Does it at once, as one part unless there is a shorter way; the caller closes the context. */
    default A run(SearchContext context) {
        return answer(List.of(find(context)), context);
    }

    /** Why an answer lacks something. */
    Optional<Stop> stopped(A answer);

    /** What is found in the repositories of a context, which may be some of those that are searched. */
    P find(SearchContext context);

    /** Whether a view has all that a part names, so that it can be told of it. */
    boolean isIn(P part, View view);

    /**
     * The answer, of what was found in parts.
     *
     * @param parts that have no repository in common
     * @param context whose view has all that they name
     */
    A answer(List<P> parts, SearchContext context);
}
