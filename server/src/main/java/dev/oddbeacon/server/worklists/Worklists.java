package dev.oddbeacon.server.worklists;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.api.Worklist.State;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.records.WorklistDays;
import dev.oddbeacon.server.records.WorklistItemRecord;
import dev.oddbeacon.server.records.WorklistItemRecords;
import dev.oddbeacon.server.records.WorklistRecord;
import dev.oddbeacon.server.records.WorklistRecords;
import dev.oddbeacon.server.searches.KeptWorklists;
import dev.oddbeacon.server.searches.KnownSearch;
import dev.oddbeacon.server.searches.SavedSearches;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.web.Versions;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.orm.ObjectOptimisticLockingFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Saved searches whose results are ticked off, by whoever has the search. Each sees and changes the items of repositories
 * that they may see.
 */
@Component
class Worklists {
    private static final int LONGEST_NAME = 64;
    private static final int LONGEST_WHY = 500;
    private static final Duration OVERLAP = Duration.ofSeconds(10); // what is changed just now is not there yet
    private static final int WEEKS = 4; // that tell the pace
    private static final int MOST_YEARS = 20; // that a forecast reaches
    private static final Comparator<Worklist.Item> ORDER = Comparator.comparing(
                    (Worklist.Item item) -> item.result().repository())
            .thenComparing(item -> item.result().branch(), Comparator.nullsFirst(Comparator.naturalOrder()))
            .thenComparing(item -> item.result().path(), Comparator.nullsFirst(Comparator.naturalOrder()))
            .thenComparing(item -> item.result().line(), Comparator.nullsFirst(Comparator.naturalOrder()))
            .thenComparingLong(Worklist.Item::id);

    private final WorklistRecords records;
    private final WorklistItemRecords items;
    private final WorklistDays days;
    private final KeptWorklists kept;
    private final FileOwners owners;
    private final SavedSearches searches;
    private final Contexts contexts;
    private final TransactionTemplate transaction;
    private final Clock clock;

    Worklists(
            WorklistRecords records,
            WorklistItemRecords items,
            WorklistDays days,
            KeptWorklists kept,
            FileOwners owners,
            SavedSearches searches,
            Contexts contexts,
            TransactionTemplate transaction,
            Clock clock) {
        this.records = records;
        this.items = items;
        this.days = days;
        this.kept = kept;
        this.owners = owners;
        this.searches = searches;
        this.contexts = contexts;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** Those of the searches that somebody has, by name. */
    List<Worklist> of(Caller caller) {
        List<WorklistRecord> all = records.findAll();
        if (all.isEmpty()) {
            return List.of();
        }
        Map<Long, SavedSearch> had = searches.had(caller);
        try (CallerContext context = contexts.open(caller)) {
            return all.stream()
                    .filter(record -> had.containsKey(record.searchId()))
                    .map(record -> info(record, had.get(record.searchId()), context))
                    .sorted(Comparator.comparing(Worklist::search).thenComparing(Worklist::of))
                    .toList();
        }
    }

    private Worklist info(WorklistRecord record, SavedSearch search, CallerContext context) {
        Map<String, Long> byState = new TreeMap<>();
        int claimed = 0;
        for (WorklistItemRecords.Amount amount : items.amounts(record.searchId())) {
            if (context.sees(amount.repository())) {
                byState.merge(amount.state(), amount.items(), Long::sum);
                claimed += amount.state().equals(word(State.OPEN)) ? (int) amount.claimed() : 0;
            }
        }
        return new Worklist(
                search.name(),
                search.of(),
                count(byState, State.OPEN),
                claimed,
                count(byState, State.DONE),
                count(byState, State.STAYS),
                count(byState, State.GONE),
                record.made(),
                record.madeBy().orElse(null),
                search.problem());
    }

    private static int count(Map<String, Long> byState, State state) {
        return byState.getOrDefault(word(state), 0L).intValue();
    }

    private static String word(State state) {
        return Parameters.lower(state);
    }

    /** A worklist as it is kept. */
    private record Found(WorklistRecord record, KnownSearch search) {}

    private Found find(Caller caller, String name, Optional<String> of) {
        KnownSearch search = searches.find(caller, name, of);
        return records.findById(search.id())
                .map(record -> new Found(record, search))
                .orElseThrow(() -> new NotFoundException(
                        "There is no worklist of " + name + ". GET /api/v1/worklists lists all."));
    }

    /** Makes one; its items join as soon as the search was run. */
    Worklist add(Caller caller, String name, Optional<String> of) {
        KnownSearch search = searches.find(caller, name, of);
        searches.demandChange(caller, search);
        transaction.executeWithoutResult(
                _ -> kept.begin(search.id(), caller.account().map(Account::name)));
        WorklistRecord record = find(caller, name, of).record;
        try (CallerContext context = contexts.open(caller)) {
            return info(record, searches.get(caller, name, of), context);
        }
    }

    /** Ends it, with what was ticked off. */
    void remove(Caller caller, String name, Optional<String> of) {
        Found found = find(caller, name, of);
        searches.demandChange(caller, found.search);
        transaction.executeWithoutResult(_ -> kept.end(found.search.id()));
    }

    /**
     * Its items, as far as the caller sees them.
     *
     * @param wanted states; none for all
     * @param owner only items of files that are theirs
     * @param since only those that were changed since then
     */
    Worklist.Items items(
            Caller caller,
            String name,
            Optional<String> of,
            List<String> wanted,
            Optional<String> owner,
            Optional<Instant> since,
            int most) {
        Found found = find(caller, name, of);
        wanted.forEach(state -> Parameters.oneOf(State.values(), "state", state));
        Instant at = clock.instant().minus(OVERLAP);
        List<WorklistItemRecord> all = since.map(
                        when -> items.findBySearchIdAndChangedGreaterThanEqual(found.search.id(), when))
                .orElseGet(() -> items.findBySearchId(found.search.id()));
        try (CallerContext context = contexts.open(caller)) {
            List<Worklist.Item> seen = all.stream()
                    .filter(item -> context.sees(item.repository()))
                    .filter(item -> wanted.isEmpty() || wanted.contains(item.state()))
                    .map(item -> info(item, context))
                    .filter(item -> owner.isEmpty() || item.owners().contains(owner.get()))
                    .sorted(ORDER)
                    .toList();
            return new Worklist.Items(seen.subList(0, Math.min(most, seen.size())), seen.size(), at);
        }
    }

    private Worklist.Item info(WorklistItemRecord record, CallerContext context) {
        Result result = WorklistItems.read(record);
        return new Worklist.Item(
                record.id(),
                result,
                record.state(),
                owners.of(context, result),
                record.claimedBy().orElse(null),
                record.why(),
                record.changed(),
                record.changedBy().orElse(null),
                record.version());
    }

    /**
     * Claims an item, ticks it off, or says why it stays.
     *
     * @throws ConflictException if it was changed since the version that is named
     */
    Worklist.Item change(Caller caller, String name, Optional<String> of, long id, Worklist.Change change) {
        Found found = find(caller, name, of);
        Optional<String> by = by(caller, change);
        if (change.why() != null && change.why().length() > LONGEST_WHY) {
            throw new BadRequestException("A reason has at most " + LONGEST_WHY + " characters. Shorten it.");
        }
        Optional<State> wanted = Optional.ofNullable(change.state())
                .map(state -> Parameters.oneOf(State.values(), "state", state))
                .filter(state -> {
                    if (state == State.GONE) {
                        throw new BadRequestException(
                                "An item is gone by itself, once it is not found any more. Say done, or stays.");
                    }
                    return true;
                });
        try (CallerContext context = contexts.open(caller)) {
            return transaction.execute(_ -> {
                WorklistItemRecord item = items.findBySearchIdAndId(found.search.id(), id)
                        .filter(record -> context.sees(record.repository()))
                        .orElseThrow(() ->
                                new NotFoundException("There is no item " + id + " of the worklist of " + name + "."));
                if (change.version() != null && change.version() != item.version()) {
                    throw Versions.changedMeanwhile("item", Long.toString(id));
                }
                if (wanted.isPresent() && item.state().equals(word(State.GONE))) {
                    throw new ConflictException("This item is gone: it is not found any more.");
                }
                String state = wanted.map(Worklists::word).orElse(item.state());
                String why =
                        Objects.requireNonNullElse(change.why(), item.why()).strip();
                if (wanted.filter(State.STAYS::equals).isPresent() && why.isEmpty()) {
                    throw new BadRequestException("Say why it stays.");
                }
                Optional<String> claimed =
                        change.claimed() == null ? item.claimedBy() : change.claimed() ? by : Optional.empty();
                item.change(state, claimed, why, by, clock.instant());
                WorklistItemRecord saved = items.saveAndFlush(item);
                days.count(found.search.id(), item.repository(), LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC));
                return info(saved, context);
            });
        } catch (ObjectOptimisticLockingFailureException e) {
            throw Versions.changedMeanwhile("item", Long.toString(id));
        }
    }

    private static Optional<String> by(Caller caller, Worklist.Change change) {
        if (caller.account().isPresent()) {
            return caller.account().map(Account::name);
        }
        Optional<String> given =
                Optional.ofNullable(change.by()).map(String::strip).filter(name -> !name.isEmpty());
        if (given.filter(name -> name.length() > LONGEST_NAME).isPresent()) {
            throw new BadRequestException("A name has at most " + LONGEST_NAME + " characters. Shorten it.");
        }
        if (given.isEmpty() && Boolean.TRUE.equals(change.claimed())) {
            throw new BadRequestException("Nobody signs in here: say by whom it is claimed.");
        }
        return given;
    }

    /** How it shrinks, in the repositories that the caller sees. */
    Worklist.Left left(Caller caller, String name, Optional<String> of) {
        Found found = find(caller, name, of);
        try (CallerContext context = contexts.open(caller)) {
            Map<LocalDate, List<WorklistDays.Left>> changes = days.of(found.search.id()).stream()
                    .filter(left -> context.sees(left.repository()))
                    .collect(Collectors.groupingBy(WorklistDays.Left::day, TreeMap::new, Collectors.toList()));
            Map<List<String>, WorklistDays.Left> now = new HashMap<>(); // by repository and owners
            List<Worklist.Day> told = new ArrayList<>();
            changes.forEach((day, changed) -> {
                changed.forEach(left -> now.put(List.of(left.repository(), left.owners()), left));
                told.add(new Worklist.Day(
                        day,
                        now.values().stream().mapToInt(WorklistDays.Left::items).sum(),
                        sums(now.values(), WorklistDays.Left::repository, Worklist.OfRepository::new),
                        sums(now.values(), WorklistDays.Left::owners, Worklist.OfOwners::new)));
            });
            LocalDate today = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
            return new Worklist.Left(told, zero(told, today).orElse(null));
        }
    }

    private static <T> List<T> sums(
            Collection<WorklistDays.Left> left,
            Function<WorklistDays.Left, String> by,
            BiFunction<String, Integer, T> told) {
        Map<String, Integer> sums = new TreeMap<>();
        left.forEach(one -> sums.merge(by.apply(one), one.items(), Integer::sum));
        return sums.entrySet().stream()
                .map(sum -> told.apply(sum.getKey(), sum.getValue()))
                .toList();
    }

    /** The day on which nothing is left, at the pace of the last weeks. */
    static Optional<LocalDate> zero(List<Worklist.Day> days, LocalDate today) {
        if (days.isEmpty()) {
            return Optional.empty();
        }
        int left = days.getLast().items();
        LocalDate from = today.minusWeeks(WEEKS);
        Worklist.Day before = days.stream()
                .filter(day -> !day.day().isAfter(from))
                .reduce((_, later) -> later)
                .orElse(days.getFirst());
        LocalDate since = before.day().isBefore(from) ? from : before.day();
        long passed = since.until(today, java.time.temporal.ChronoUnit.DAYS);
        int shrunk = before.items() - left;
        if (left == 0) {
            return Optional.of(days.getLast().day());
        }
        if (shrunk <= 0 || passed == 0) {
            return Optional.empty();
        }
        long more = Math.ceilDiv((long) left * passed, shrunk);
        return more > MOST_YEARS * 365L ? Optional.empty() : Optional.of(today.plusDays(more));
    }
}
