package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Comparison;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.SearchCheck;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.records.KeptResultsRecord;
import dev.oddbeacon.server.records.KeptResultsRecords;
import dev.oddbeacon.server.results.Changes;
import dev.oddbeacon.server.results.ResultLines;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.GivenNames;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What saved searches find, now and at times that were kept under a name. A check is made with everything in sight, and
 * shows each what they may see.
 */
@Component
class SearchChecks {
    private static final int MOST_TOLD = 1_000;
    private static final String A_CHECK = "a check";

    private final SavedSearches searches;
    private final KeptResultsRecords records;
    private final TransactionTemplate transaction;
    private final Contexts contexts;
    private final Settings settings;
    private final Clock clock;

    SearchChecks(
            SavedSearches searches,
            KeptResultsRecords records,
            TransactionTemplate transaction,
            Contexts contexts,
            Settings settings,
            Clock clock) {
        this.searches = searches;
        this.records = records;
        this.transaction = transaction;
        this.contexts = contexts;
        this.settings = settings;
        this.clock = clock;
    }

    /** All that a search finds now, as far as the caller sees. */
    List<Result> now(Caller caller, KnownSearch search) {
        try (CallerContext context = contexts.open(caller)) {
            return SearchRuns.run(context, search, Optional.empty()).results();
        }
    }

    /** Those that were kept, the oldest first. */
    List<SearchCheck> of(Caller caller, KnownSearch search) {
        try (CallerContext context = contexts.open(caller)) {
            return records.findBySearchIdOrderByKept(search.id()).stream()
                    .map(record -> info(context, record))
                    .toList();
        }
    }

    private static SearchCheck info(CallerContext context, KeptResultsRecord record) {
        return new SearchCheck(
                record.name(),
                record.kept(),
                record.keptBy().orElse(null),
                seen(context, record).size());
    }

    private static List<Result> seen(CallerContext context, KeptResultsRecord record) {
        return ResultLines.decompress(record.results()).stream()
                .filter(result -> context.sees(result.repository()))
                .toList();
    }

    /** What was found then. */
    List<Result> get(Caller caller, KnownSearch search, String check) {
        try (CallerContext context = contexts.open(caller)) {
            return seen(context, find(search, check));
        }
    }

    private KeptResultsRecord find(KnownSearch search, String check) {
        return records.findBySearchIdAndName(search.id(), check).orElseThrow(() -> notThere(search, check));
    }

    private static NotFoundException notThere(KnownSearch search, String check) {
        return new NotFoundException("There is no check " + check + " of " + search.name()
                + ". GET /api/v1/saved-searches/" + search.name() + "/checks lists all.");
    }

    /**
     * Keeps what is found now.
     *
     * @throws ConflictException if there is a check of that name, and it is not to be replaced
     */
    SearchCheck keep(Caller caller, KnownSearch search, String check, boolean replaces) {
        searches.demandChange(caller, search);
        GivenNames.check(A_CHECK, check);
        if (isDay(check)) {
            throw new BadRequestException("\"" + check + "\" is a day. Choose a name that is none, as release-12.");
        }
        if (!replaces && records.findBySearchIdAndName(search.id(), check).isPresent()) {
            throw taken(search, check);
        }
        byte[] results;
        Instant when = clock.instant();
        try (CallerContext context = contexts.openWhole(search.account(), settings.searchTime())) {
            results = ResultLines.compress(
                    SearchRuns.run(context, search, Optional.empty()).results());
        }
        try {
            transaction.executeWithoutResult(_ -> {
                KeptResultsRecord record = records.findBySearchIdAndName(search.id(), check)
                        .orElseGet(() -> new KeptResultsRecord(search.id(), check));
                record.keep(results, when, caller.account().map(Account::name));
                records.save(record);
            });
        } catch (DataIntegrityViolationException e) {
            throw taken(search, check);
        }
        try (CallerContext context = contexts.open(caller)) {
            return info(context, find(search, check));
        }
    }

    private static ConflictException taken(KnownSearch search, String check) {
        return new ConflictException("There is a check " + check + " of " + search.name()
                + " already. Choose another name, or ask for it to be replaced.");
    }

    void remove(Caller caller, KnownSearch search, String check) {
        searches.demandChange(caller, search);
        transaction.executeWithoutResult(_ -> records.delete(find(search, check)));
    }

    /** @param with an earlier check, or a day; nothing if it is empty */
    Comparison compare(Caller caller, KnownSearch search, String with) throws IOException {
        try (CallerContext context = contexts.open(caller)) {
            SearchRuns.Run run = SearchRuns.run(context, search, Optional.empty());
            Optional<KeptResultsRecord> kept =
                    with.isEmpty() ? Optional.empty() : records.findBySearchIdAndName(search.id(), with);
            if (kept.isPresent()) {
                Changes changes = Changes.between(seen(context, kept.get()), run.results());
                return comparison(with, kept.get().kept(), run, changes.came(), Optional.of(changes.went()));
            }
            if (with.isEmpty()) {
                return comparison(null, null, run, run.results(), Optional.of(List.of()));
            }
            if (!isDay(with)) {
                throw new NotFoundException("There is no check " + with + " of " + search.name()
                        + ", and it is no day. GET /api/v1/saved-searches/" + search.name()
                        + "/checks lists all; a day is 2026-01-31, or 2w for two weeks ago.");
            }
            Instant day = Days.start(with, context.search().now());
            return comparison(
                    with, day, run, new ResultsOfDay(context, search, day).cameSince(run.results()), Optional.empty());
        }
    }

    /** @param before what was found then, as somebody has kept it in a file */
    Comparison compare(Caller caller, KnownSearch search, List<Result> before) {
        try (CallerContext context = contexts.open(caller)) {
            SearchRuns.Run run = SearchRuns.run(context, search, Optional.empty());
            Changes changes = Changes.between(before, run.results());
            return comparison(null, null, run, changes.came(), Optional.of(changes.went()));
        }
    }

    private static Comparison comparison(
            String with, Instant at, SearchRuns.Run run, List<Result> came, Optional<List<Result>> went) {
        return new Comparison(
                with,
                at,
                run.results().size(),
                told(came),
                came.size(),
                went.map(SearchChecks::told).orElse(null),
                went.map(List::size).orElse(0),
                run.complete());
    }

    private static List<Result> told(List<Result> results) {
        return results.subList(0, Math.min(MOST_TOLD, results.size()));
    }

    private static boolean isDay(String name) {
        try {
            Days.check(Objects.requireNonNull(name));
            return true;
        } catch (dev.oddbeacon.core.query.InvalidQueryException e) {
            return false;
        }
    }
}
