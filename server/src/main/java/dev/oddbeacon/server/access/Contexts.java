package dev.oddbeacon.server.access;

import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.ExclusionSets;
import dev.oddbeacon.server.catalogue.Registered;
import dev.oddbeacon.server.catalogue.SetsInUse;
import dev.oddbeacon.server.index.CurrentView;
import dev.oddbeacon.server.index.KeptViews;
import dev.oddbeacon.server.index.Mirrors;
import dev.oddbeacon.server.web.GoneException;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/**
 * The one door to the index, the catalogue and what is made of them: every request opens a context for its caller, and
 * sees what that shows. An architecture test keeps controllers from any other way.
 */
@Component
public class Contexts {
    private final Mirrors mirrors;
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
            Mirrors mirrors,
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
        this.mirrors = mirrors;
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
        return open(caller, caller.account().map(Account::name), cursor, asker, settings.searchTime());
    }

    /**
     * Opens a context for the service itself, which sees everything.
     *
     * @param account whose own exclusion sets apply
     * @param most that it may take
     */
    public CallerContext openWhole(Optional<String> account, Duration most) {
        return open(Caller.service(), account, Optional.empty(), "", most);
    }

    private CallerContext open(
            Caller caller, Optional<String> account, Optional<Cursor> cursor, String asker, Duration most) {
        Registered registered = catalogue.now();
        Visibility.Sight sight = visibility.sight(caller, registered);
        View whole =
                cursor.isEmpty() ? current.acquire() : ofCursor(cursor.get().view());
        View seen = seen(whole, sight, registered);
        if (cursor.isPresent() && cursor.get().view().hidden() != fingerprint(seen)) {
            whole.release();
            throw gone();
        }
        SetsInUse own = sets.of(account, name -> sight.sees(name, registered));
        Budget budget = new Budget(most);
        superseded.by(asker, budget);
        SearchContext search =
                new SearchContext(seen, own.exclusions(), clock.instant(), budget, threads.pool(), () -> {
                    superseded.ended(asker, budget);
                    whole.release();
                });
        Cursor.ViewId id = new Cursor.ViewId(kept.lineage(), whole.number(), fingerprint(seen));
        return new CallerContext(
                search,
                id,
                () -> kept.keep(whole),
                registered.seenBy(sight.key(), sight.sees()),
                name -> sight.sees(name, registered),
                own,
                mirrors);
    }

    private View ofCursor(Cursor.ViewId id) {
        if (id.lineage() != kept.lineage()) {
            throw gone();
        }
        return ofNumber(id.number());
    }

    private static View seen(View whole, Visibility.Sight sight, Registered registered) {
        return whole.seenBy(List.of(registered.visibility(), sight.key()), name -> sight.sees(name, registered));
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

    /**
     * Stands for the repositories that are hidden; numbers of branches in a cursor mean something only with the same
     * ones.
     */
    private static int fingerprint(View view) {
        return view.hidden().hashCode();
    }

    /**
     * Whoever has an account, for what is told to them while they do not ask.
     *
     * @param account empty where nobody signs in
     * @return empty if there is no such account any more
     */
    public Optional<Caller> caller(String account) {
        return callers.ofAccount(account);
    }

    /** Whether a caller may see a repository now, asked again for each event of a stream. */
    public Predicate<String> sees(Caller caller) {
        return name -> {
            Registered registered = catalogue.now();
            return registered
                    .find(name)
                    .filter(repository -> callers.now(caller)
                            .filter(now ->
                                    visibility.sight(now, registered).sees().test(repository))
                            .isPresent())
                    .isPresent();
        };
    }

    /** Whether a caller is still signed in, asked for each event of a stream. */
    public boolean isPresent(Caller caller) {
        return callers.now(caller).isPresent();
    }
}
