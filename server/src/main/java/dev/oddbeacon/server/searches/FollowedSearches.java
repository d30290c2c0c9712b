package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.api.FollowedFileProblem;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.ExclusionSets;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.SavedSearchRecord;
import dev.oddbeacon.server.records.SavedSearchRecords;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Saved searches, worklists and exclusion sets that repositories keep in files of their own, {@code .oddbeacon/*.yaml} on the
 * default branch: they come and change and go with the files. A file with a mistake changes nothing; what it held before stays, and the mistake is told.
 *
 * <p>Concurrency: one thread reads files and changes records; others ask for {@link #problems}.
 */
@Component
class FollowedSearches implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(FollowedSearches.class);
    private static final String FOLDER = ".oddbeacon/";
    private static final String SUFFIX = ".yaml";
    private static final Duration ROUND = Duration.ofMillis(500);
    private static final Duration MOST = Duration.ofSeconds(60);
    private static final long LARGEST = 1_000_000; // bytes of a file
    private static final int MOST_FILES = 100; // of a repository
    private static final long NEVER = -1;

    /** What a file holds, or several do, by name. */
    private record Held(Map<String, SavedSearches.Kept> searches, Map<String, ExclusionSetInfo.Change> sets) {}

    private final Charge charge;
    private final SavedSearchRecords records;
    private final SavedSearches searches;
    private final KeptWorklists worklists;
    private final ExclusionSets sets;
    private final Contexts contexts;
    private final Processes processes;
    private final TransactionTemplate transaction;
    private final Map<String, String> seen = new HashMap<>(); // commits by repository
    private final Map<String, List<FollowedFileProblem>> problems = new ConcurrentHashMap<>(); // by repository
    private long seenView = NEVER;
    private final Rounds rounds = new Rounds("followed-searches", ROUND, this::round);

    FollowedSearches(
            SavedSearchRecords records,
            SavedSearches searches,
            KeptWorklists worklists,
            ExclusionSets sets,
            Contexts contexts,
            Processes processes,
            TransactionTemplate transaction,
            Charge charge) {
        this.charge = charge;
        this.records = records;
        this.searches = searches;
        this.worklists = worklists;
        this.sets = sets;
        this.contexts = contexts;
        this.processes = processes;
        this.transaction = transaction;
    }

    /** Mistakes in files of the repositories that somebody sees, by repository and path. */
    List<FollowedFileProblem> problems(CallerContext context) {
        return new TreeMap<>(problems)
                .entrySet().stream()
                        .filter(of -> context.find(of.getKey()).isPresent())
                        .flatMap(of -> of.getValue().stream())
                        .toList();
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
        try (CallerContext context = contexts.openWhole(Optional.empty(), MOST)) {
            View view = context.view();
            if (view.number() == seenView) {
                return;
            }
            Set<String> there = new HashSet<>();
            for (Repository repository : context.repositories()) {
                Optional<Integer> branch = view.branchNumber(repository.name(), "");
                there.add(repository.name());
                if (branch.isPresent() && !view.branch(branch.get()).commit().equals(seen.get(repository.name()))) {
                    follow(context, repository, branch.get());
                    seen.put(repository.name(), view.branch(branch.get()).commit());
                }
            }
            forgetAllBut(there);
            seenView = view.number();
        } catch (DataAccessException | TransactionException | IOException | NotFoundException e) {
            LOG.info("Saved searches in repositories are read later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Reading saved searches in repositories failed", e);
        }
    }

    private void forgetAllBut(Set<String> there) {
        seen.keySet().retainAll(there);
        problems.keySet().retainAll(there);
        List<SavedSearchRecord> gone = records.findByOwnerStartingWith(SavedSearches.REPOSITORY).stream()
                .filter(record -> !there.contains(record.owner().substring(SavedSearches.REPOSITORY.length())))
                .toList();
        if (!gone.isEmpty()) {
            transaction.executeWithoutResult(_ -> records.deleteAll(gone));
        }
        sets.keepers().stream()
                .filter(keeper -> !there.contains(keeper))
                .toList()
                .forEach(keeper -> sets.follow(keeper, Map.of(), Map.of(), Set.of()));
    }

    private void follow(CallerContext context, Repository repository, int branch) throws IOException {
        SnapshotReader snapshot = context.view().snapshot(branch);
        SnapshotReader.Range range = snapshot.startingWith(FOLDER);
        List<String> paths = new ArrayList<>();
        for (int file = range.from(); file < range.to() && paths.size() < MOST_FILES; file++) {
            String path = snapshot.path(file);
            if (path.endsWith(SUFFIX) && path.indexOf('/', FOLDER.length()) < 0) {
                paths.add(path);
            }
        }
        String owner = SavedSearches.REPOSITORY + repository.name();
        List<SavedSearchRecord> before = records.findByOwner(owner);
        if (paths.isEmpty() && before.isEmpty() && !sets.keepers().contains(repository.name())) {
            problems.remove(repository.name());
            return;
        }
        Held wanted = new Held(new TreeMap<>(), new TreeMap<>());
        Map<String, String> sources = new HashMap<>(); // by name
        Map<String, String> sourcesOfSets = new HashMap<>();
        Set<String> standing = new HashSet<>(); // files with a mistake: what they held stays
        List<FollowedFileProblem> mistakes = new ArrayList<>();
        try (MirrorReader mirror = context.mirror(repository)) {
            String commit = context.view().branch(branch).commit();
            for (String path : paths) {
                try {
                    Held read = read(context, text(mirror, commit, path));
                    checkNew("a search", read.searches.keySet(), sources);
                    checkNew("an exclusion set", read.sets.keySet(), sourcesOfSets);
                    read.searches.keySet().forEach(name -> sources.put(name, path));
                    read.sets.keySet().forEach(name -> sourcesOfSets.put(name, path));
                    wanted.searches.putAll(read.searches);
                    wanted.sets.putAll(read.sets);
                } catch (BadRequestException | InvalidQueryException e) {
                    standing.add(path);
                    mistakes.add(new FollowedFileProblem(
                            repository.name(), path, e.getMessage().replace(" Nothing was changed.", "")));
                }
            }
        }
        sets.follow(repository.name(), wanted.sets, sourcesOfSets, standing); // before the searches that name them
        record(owner, before, wanted.searches, sources, standing);
        if (mistakes.isEmpty()) {
            problems.remove(repository.name()); // only now: what the files hold is there by then
        } else {
            problems.put(repository.name(), mistakes);
        }
    }

    private static void checkNew(String what, Set<String> names, Map<String, String> sources) {
        names.stream().filter(sources::containsKey).findFirst().ifPresent(name -> {
            throw new BadRequestException("There is " + what + " " + name + " in " + sources.get(name) + " already.");
        });
    }

    private static String text(MirrorReader mirror, String commit, String path) throws IOException {
        SourceTree.Entry entry =
                mirror.entry(commit, path).orElseThrow(() -> new BadRequestException("It cannot be found any more."));
        if (entry.kind() != SourceTree.Kind.FILE || entry.bytes() > LARGEST) {
            throw new BadRequestException("It is no file, or has more than " + LARGEST + " bytes.");
        }
        return new String(mirror.blob(entry.id()), StandardCharsets.UTF_8);
    }

    private Held read(CallerContext context, String yaml) {
        SavedSearchFile.InRepository file = SavedSearchFile.readInRepository(yaml);
        Map<String, SavedSearches.Kept> kept = new TreeMap<>();
        file.searches().forEach((name, change) -> {
            try {
                kept.put(name, searches.understood(context, name, change));
            } catch (InvalidQueryException | BadRequestException e) {
                throw new BadRequestException("The search " + name + ": " + e.getMessage());
            }
        });
        file.sets().forEach((name, change) -> {
            try {
                ExclusionSets.checkKept(name, change);
            } catch (InvalidQueryException e) {
                throw new BadRequestException("The exclusion set " + name + ": " + e.getMessage());
            }
        });
        return new Held(kept, file.sets());
    }

    private void record(
            String owner,
            List<SavedSearchRecord> before,
            Map<String, SavedSearches.Kept> wanted,
            Map<String, String> sources,
            Set<String> standing) {
        Map<String, SavedSearchRecord> byName =
                before.stream().collect(Collectors.toMap(SavedSearchRecord::name, record -> record));
        List<SavedSearchRecord> gone = before.stream()
                .filter(record -> !wanted.containsKey(record.name()) && !standing.contains(record.source()))
                .toList();
        List<SavedSearchRecord> changed = new ArrayList<>();
        wanted.forEach((name, kept) -> {
            SavedSearchRecord record =
                    Optional.ofNullable(byName.get(name)).orElseGet(() -> new SavedSearchRecord(owner, name));
            SavedSearch.Subject subject = kept.subject();
            if (!kept.isIn(record) || !sources.get(name).equals(record.source())) {
                record.change(kept.description(), SavedSearches.word(subject), kept.json(), Optional.empty());
                record.replacement(kept.replacement());
                record.source(sources.get(name));
                changed.add(record);
            }
        });
        if (!gone.isEmpty() || !changed.isEmpty()) {
            transaction.executeWithoutResult(_ -> {
                records.deleteAll(gone);
                records.saveAll(changed);
            });
        }
        recordWorklists(records.findByOwner(owner), wanted);
    }

    private void recordWorklists(List<SavedSearchRecord> searchesThere, Map<String, SavedSearches.Kept> wanted) {
        for (SavedSearchRecord record : searchesThere) {
            Optional<SavedSearches.Kept> kept = Optional.ofNullable(wanted.get(record.name()));
            if (kept.isPresent() && kept.get().worklist() != worklists.has(record.id())) {
                transaction.executeWithoutResult(_ -> {
                    if (kept.get().worklist()) {
                        worklists.begin(record.id(), Optional.empty());
                    } else {
                        worklists.end(record.id());
                    }
                });
            }
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
