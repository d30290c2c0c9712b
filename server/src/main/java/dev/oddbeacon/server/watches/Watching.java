package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.NoticeRecord;
import dev.oddbeacon.server.records.NoticeRecords;
import dev.oddbeacon.server.records.SavedSearchRecord;
import dev.oddbeacon.server.records.SavedSearchRecords;
import dev.oddbeacon.server.records.WatchRecords;
import dev.oddbeacon.server.records.WatchStates;
import dev.oddbeacon.server.results.Changes;
import dev.oddbeacon.server.results.ResultLines;
import dev.oddbeacon.server.searches.KnownSearch;
import dev.oddbeacon.server.searches.SearchRuns;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.BusyException;
import dev.oddbeacon.server.web.TooLargeException;
import dev.oddbeacon.server.worklists.WorklistItems;
import java.time.Clock;
import java.time.Duration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Looks at searches that are watched, or ticked off, whenever a repository has changed: only at what they find in that
 * repository. All is looked at with everything in sight; what of it is told to whom is decided when it is told.
 *
 * <p>Concurrency: one thread looks; others ask for {@link #problem problems}.
 */
@Component
public class Watching implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Watching.class);
    private static final Duration ROUND = Duration.ofMillis(500);
    private static final Duration MOST = Duration.ofSeconds(60); // of one look
    private static final Duration BETWEEN_TRIES = Duration.ofSeconds(30); // of a search that cannot be run
    private static final int ONE_BY_ONE = 50; // if more have changed, all are looked at together
    private static final long NEVER = -1;

    private final Charge charge;
    private final WatchRecords watches;
    private final SavedSearchRecords searches;
    private final WatchStates states;
    private final NoticeRecords notices;
    private final WorklistItems items;
    private final TransactionTemplate transaction;
    private final Contexts contexts;
    private final Processes processes;
    private final Clock clock;
    private final Map<Long, Known> known = new HashMap<>(); // by search
    private final Map<Long, String> problems = new ConcurrentHashMap<>(); // by search
    private long seenView = NEVER;
    private Map<String, Long> now = Map.of(); // what each repository is at, in the view that was seen
    private final Rounds rounds = new Rounds("watching", ROUND, this::round);

    /** What is known of a watched search. */
    private static final class Known {
        private Map<String, Long> seen = Map.of(); // what each repository was at; empty after a start
        private boolean isLookedAt;
        private long triedAt; // nanoseconds
    }

    Watching(
            WatchRecords watches,
            SavedSearchRecords searches,
            WatchStates states,
            NoticeRecords notices,
            WorklistItems items,
            TransactionTemplate transaction,
            Contexts contexts,
            Processes processes,
            Clock clock,
            Charge charge) {
        this.charge = charge;
        this.watches = watches;
        this.searches = searches;
        this.states = states;
        this.notices = notices;
        this.items = items;
        this.transaction = transaction;
        this.contexts = contexts;
        this.processes = processes;
        this.clock = clock;
    }

    /** Why a search cannot be looked at. */
    public Optional<String> problem(long search) {
        return Optional.ofNullable(problems.get(search));
    }

    @Override
    public void start() {
        if (processes.has(Duty.SERVING)) {
            rounds.start();
        }
    }

    private void round() {
        if (!charge.isOurs()) {
            return;
        }
        try {
            Set<Long> watched = new HashSet<>(watches.watched());
            watched.addAll(items.searches());
            known.keySet().retainAll(watched);
            problems.keySet().retainAll(watched);
            if (watched.isEmpty()) {
                return;
            }
            Map<Long, Long> versions = states.versions();
            for (SavedSearchRecord record : searches.findAllById(watched)) {
                KnownSearch search = KnownSearch.of(record);
                Known of = known.computeIfAbsent(search.id(), _ -> new Known());
                if (!problems.containsKey(search.id()) || System.nanoTime() - of.triedAt > BETWEEN_TRIES.toNanos()) {
                    look(search, of, versions.getOrDefault(search.id(), NEVER) == search.version());
                }
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.info("Watched searches are looked at later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Looking at watched searches failed", e);
        }
    }

    /** @param isKnown whether what it finds was kept, of this version */
    private void look(KnownSearch search, Known of, boolean isKnown) {
        of.triedAt = System.nanoTime();
        try (CallerContext context = contexts.openWhole(search.account(), MOST)) {
            Map<String, Long> current = positions(context);
            boolean isSeen = of.isLookedAt && isKnown;
            if (isSeen && of.seen.equals(current)) {
                return;
            }
            Set<String> unready = unready(context, search);
            if (!isSeen) {
                lookAtAll(context, search, unready, isKnown);
            } else {
                Set<String> changed = new HashSet<>(current.keySet());
                changed.removeIf(name -> current.get(name).equals(of.seen.get(name)));
                changed.addAll(of.seen.keySet().stream()
                        .filter(name -> !current.containsKey(name))
                        .toList());
                changed.removeAll(unready);
                if (changed.size() > ONE_BY_ONE) {
                    lookAtAll(context, search, unready, true);
                } else {
                    changed.forEach(name -> lookAt(context, search, name));
                }
            }
            unready.retainAll(current.keySet());
            of.seen = unready.isEmpty() ? current : without(unready, current, of.seen);
            of.isLookedAt = true;
            problems.remove(search.id());
        } catch (InvalidQueryException | BadRequestException | BusyException | TooLargeException e) {
            problems.put(search.id(), e.getMessage());
        }
    }

    /** What was seen now, but for some repositories, of which it is what was seen before. */
    private static Map<String, Long> without(Set<String> unready, Map<String, Long> now, Map<String, Long> before) {
        Map<String, Long> seen = new HashMap<>(now);
        seen.keySet().removeAll(unready);
        unready.stream().filter(before::containsKey).forEach(name -> seen.put(name, before.get(name)));
        return seen;
    }

    /** What each repository is at: its branches and their commits, and whether its past was read. */
    private Map<String, Long> positions(CallerContext context) {
        View view = context.view();
        if (view.number() != seenView) {
            Map<String, Long> positions = new HashMap<>();
            for (Branch branch : view.branches()) {
                long hash = 31L * branch.name().hashCode() + branch.commit().hashCode();
                positions.merge(branch.repository(), hash * 0x9E3779B97F4A7C15L, Long::sum);
            }
            for (Repository repository : context.repositories()) {
                positions.computeIfPresent(
                        repository.name(),
                        (_, hash) -> 31 * hash + (context.isPastIncomplete(repository) ? 1 : 0) + repository.id());
            }
            now = positions;
            seenView = view.number();
        }
        return now;
    }

    /** Repositories of which not all can be searched now: they are looked at once it can. */
    private static Set<String> unready(CallerContext context, KnownSearch search) {
        return context.repositories().stream()
                .filter(repository -> search.isOfPast()
                        ? context.isPastIncomplete(repository)
                        : repository.isInParts() || repository.branches().isEmpty())
                .map(Repository::name)
                .collect(Collectors.toSet());
    }

    /** @param tells whether what came is told: not of a search that is looked at for the first time */
    private void lookAtAll(CallerContext context, KnownSearch search, Set<String> unready, boolean tells) {
        Map<String, List<Result>> found = SearchRuns.run(context, search, Optional.empty()).results().stream()
                .collect(Collectors.groupingBy(Result::repository));
        Map<String, Long> ids = new TreeMap<>(); // in their order, so that items are numbered in it
        context.repositories().forEach(repository -> ids.put(repository.name(), repository.id()));
        Map<Long, byte[]> before = tells ? states.all(search.id()) : Map.of();
        if (!tells) {
            transaction.executeWithoutResult(_ -> states.forget(search.id()));
        }
        ids.forEach((name, id) -> { // each by itself: whoever looks at what has changed lately must not miss a long one
            Optional<byte[]> kept = Optional.ofNullable(before.get(id));
            List<Result> results = found.getOrDefault(name, List.of());
            if (!unready.contains(name) && (kept.isPresent() || !results.isEmpty())) {
                transaction.executeWithoutResult(_ -> keep(context, search, name, id, kept, results, tells));
            }
        });
        before.forEach((id, results) -> {
            if (!ids.containsValue(id)) {
                transaction.executeWithoutResult(_ -> keepGone(context, search, id, results));
            }
        });
        if (!tells) {
            items.repositories(search.id()).stream()
                    .filter(name -> !unready.contains(name) && !found.containsKey(name))
                    .forEach(name ->
                            transaction.executeWithoutResult(_ -> items.follow(context, search.id(), name, List.of())));
        }
        transaction.executeWithoutResult(_ -> states.putVersion(search.id(), search.version()));
    }

    private void lookAt(CallerContext context, KnownSearch search, String name) {
        Optional<Repository> repository = context.find(name);
        if (repository.isEmpty()) {
            transaction.executeWithoutResult(_ -> {
                Set<Long> there =
                        context.repositories().stream().map(Repository::id).collect(Collectors.toSet());
                states.all(search.id()).forEach((id, results) -> {
                    if (!there.contains(id)) {
                        keepGone(context, search, id, results);
                    }
                });
            });
            return;
        }
        List<Result> found = SearchRuns.run(context, search, Optional.of(name)).results();
        long id = repository.get().id();
        transaction.executeWithoutResult(_ -> keep(context, search, name, id, states.of(search.id(), id), found, true));
    }

    /** Of a repository that was removed. */
    private void keepGone(CallerContext context, KnownSearch search, long id, byte[] results) {
        List<Result> before = ResultLines.decompress(results);
        keep(context, search, before.getFirst().repository(), id, Optional.of(results), List.of(), true);
    }

    private void keep(
            CallerContext context,
            KnownSearch search,
            String name,
            long id,
            Optional<byte[]> kept,
            List<Result> found,
            boolean tells) {
        List<Result> before = kept.map(ResultLines::decompress).orElse(List.of());
        if (before.equals(found)) {
            items.own(context, search.id(), name);
            return;
        }
        states.put(search.id(), id, found.isEmpty() ? Optional.empty() : Optional.of(ResultLines.compress(found)));
        items.follow(context, search.id(), name, found);
        Changes changes = Changes.between(before, found);
        if (tells && !(changes.came().isEmpty() && changes.went().isEmpty())) {
            notices.save(new NoticeRecord(
                    search.id(),
                    clock.instant(),
                    name,
                    changes.came().size(),
                    changes.went().size(),
                    ResultLines.compress(Stream.concat(changes.came().stream(), changes.went().stream())
                            .toList())));
        }
    }

    @Override
    public void stop() {
        rounds.stop();
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
