package dev.oddbeacon.server.access;

import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.ExclusionSets;
import dev.oddbeacon.server.index.CurrentView;
import dev.oddbeacon.server.index.KeptViews;
import dev.oddbeacon.server.web.GoneException;
import java.time.Clock;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * The one door to the index, the catalogue and what is made of them: every request opens a context for its caller, and
 * sees what that shows. An architecture test keeps controllers from any other way.
 */
@Component
public class Contexts {
    private final Settings settings;
    private final CurrentView current;
    private final KeptViews kept;
    private final Catalogue catalogue;
    private final ExclusionSets sets;
    private final SearchThreads threads;
    private final Superseded superseded;
    private final Visibility visibility;
    private final Callers callers;
    private final Clock clock;

    Contexts(
            Settings settings,
            CurrentView current,
            KeptViews kept,
            Catalogue catalogue,
            ExclusionSets sets,
            SearchThreads threads,
            Superseded superseded,
            Visibility visibility,
            Callers callers,
            Clock clock) {
        this.settings = settings;
        this.current = current;
        this.kept = kept;
        this.catalogue = catalogue;
        this.sets = sets;
        this.threads = threads;
        this.superseded = superseded;
        this.visibility = visibility;
        this.callers = callers;
        this.clock = clock;
    }

    /** Opens a context for a request that neither continues another nor supersedes one. */
    public CallerContext open(Caller caller) {
        return open(caller, Optional.empty(), "");
    }

    /**
     * Opens a context; to be closed at the end of the request.
     *
     * @param cursor of the page before: the same view is seen again
     * @param asker an id of the caller's choice; the search before of the same asker is cancelled. Empty for none
     * @throws GoneException if the view of the cursor is not kept any more, or the caller may see something else by now
     */
    public CallerContext open(Caller caller, Optional<Cursor> cursor, String asker) {
        Predicate<String> seen = visibility.seenBy(caller);
        View whole =
                cursor.isEmpty() ? current.acquire() : ofCursor(cursor.get().view(), seen);
        Set<String> hidden = hidden(whole, seen);
        Budget budget = new Budget(settings.searchTime());
        superseded.by(asker, budget);
        SearchContext search = new SearchContext(
                whole.without(hidden), sets.current(), clock.instant(), budget, threads.pool(), () -> {
                    superseded.ended(asker, budget);
                    whole.release();
                });
        Cursor.ViewId id = new Cursor.ViewId(kept.lineage(), whole.number(), fingerprint(hidden));
        return new CallerContext(search, id, () -> kept.keep(whole), catalogue, seen, sets, settings);
    }

    private View ofCursor(Cursor.ViewId id, Predicate<String> seen) {
        if (id.lineage() != kept.lineage()) {
            throw gone();
        }
        View view = ofNumber(id.number());
        if (id.hidden() != fingerprint(hidden(view, seen))) {
            view.release();
            throw gone();
        }
        return view;
    }

    private View ofNumber(long number) {
        View now = current.acquire();
        if (now.number() == number) {
            return now;
        }
        now.release();
        return kept.acquire(number)
                .orElseThrow(
                        () -> new GoneException(
                                "The cursor is older than ten minutes and the index has changed since. Search again from the start."));
    }

    private static GoneException gone() {
        return new GoneException(
                "The cursor is of an index that is gone: the service was started again, or what you may see has changed. Search again from the start.");
    }

    /** The repositories of a view that are not seen. */
    private static Set<String> hidden(View view, Predicate<String> seen) {
        return view.branches().stream()
                .map(Branch::repository)
                .filter(seen.negate())
                .collect(Collectors.toUnmodifiableSet());
    }

    /**
     * Stands for the repositories that are hidden; numbers of branches in a cursor mean something only with the same
     * ones.
     */
    private static int fingerprint(Set<String> hidden) {
        return hidden.hashCode();
    }

    /** Whether a caller may see a repository now, asked again for each event of a stream. */
    public Predicate<String> sees(Caller caller) {
        return repository -> callers.now(caller)
                .map(now -> visibility.seenBy(now).test(repository))
                .orElse(false);
    }

    /** Whether a caller is still signed in, asked for each event of a stream. */
    public boolean isPresent(Caller caller) {
        return callers.now(caller).isPresent();
    }
}
