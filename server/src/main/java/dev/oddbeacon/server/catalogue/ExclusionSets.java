package dev.oddbeacon.server.catalogue;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.records.ExclusionSetRecord;
import dev.oddbeacon.server.records.ExclusionSetRecords;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.GivenNames;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Versions;
import jakarta.annotation.PostConstruct;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.orm.ObjectOptimisticLockingFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The exclusion sets, in memory as they are in the records, and what each takes out of the snapshots that were searched
 * lately.
 */
@Component
public class ExclusionSets implements News.Hearer {
    private static final String ONE = "exclusion set";
    private static final int LONGEST_PATTERNS = 2_000_000;
    private static final String SHARED = ""; // as owner
    private static final long CACHE_BYTES = 64L << 20;

    private final ExclusionSetRecords records;
    private final TransactionTemplate transaction;
    private final Events events;
    private final News news;
    private final Cache<SetsInUse.Applied, BitSet> cache = Caffeine.newBuilder()
            .maximumWeight(CACHE_BYTES)
            .weigher((SetsInUse.Applied _, BitSet files) -> 100 + files.size() / 8)
            .build();
    private volatile Map<String, SetsInUse> byOwner = Map.of();
    private volatile NavigableMap<String, NavigableMap<String, SetsInUse.Entry>> byRepository = new TreeMap<>();

    ExclusionSets(ExclusionSetRecords records, TransactionTemplate transaction, Events events, News news) {
        this.news = news;
        this.records = records;
        this.transaction = transaction;
        this.events = events;
    }

    @PostConstruct
    synchronized void load() {
        Map<String, NavigableMap<String, SetsInUse.Entry>> loaded = new HashMap<>();
        loaded.put(SHARED, new TreeMap<>());
        for (ExclusionSetRecord record : records.findAll()) {
            loaded.computeIfAbsent(record.owner(), _ -> new TreeMap<>()).put(record.name(), entry(record));
        }
        NavigableMap<String, SetsInUse.Entry> shared = loaded.get(SHARED);
        NavigableMap<String, NavigableMap<String, SetsInUse.Entry>> ofRepositories = new TreeMap<>();
        loaded.forEach((owner, sets) -> {
            if (owner.startsWith(Repository.KEEPER)) {
                ofRepositories.put(owner.substring(Repository.KEEPER.length()), sets);
            }
        });
        byRepository = ofRepositories;
        byOwner = loaded.entrySet().stream().collect(Collectors.toUnmodifiableMap(Map.Entry::getKey, own -> {
            NavigableMap<String, SetsInUse.Entry> both = new TreeMap<>(shared);
            both.putAll(own.getValue());
            return new SetsInUse(both, cache);
        }));
    }

    @Override
    public News.Kind kind() {
        return News.Kind.SETS;
    }

    @Override
    public void heard(News.Item item) {
        changed(Optional.empty());
    }

    private static SetsInUse.Entry entry(ExclusionSetRecord record) {
        ExclusionSetInfo info = new ExclusionSetInfo(
                record.name(),
                !record.owner().equals(SHARED) && !record.owner().startsWith(Repository.KEEPER),
                record.owner().startsWith(Repository.KEEPER)
                        ? record.owner().substring(Repository.KEEPER.length())
                        : null,
                record.description(),
                record.isByDefault(),
                record.patterns(),
                record.version(),
                record.changed());
        return new SetsInUse.Entry(
                record.id(), info, ExclusionSet.parse(record.patterns()).set());
    }

    /**
     * The sets of somebody: their own, before those that all share, before those that repositories keep.
     *
     * @param account empty for whoever has none of their own
     * @param sees whether they may see a repository
     */
    public SetsInUse of(Optional<String> account, Predicate<String> sees) {
        NavigableMap<String, NavigableMap<String, SetsInUse.Entry>> ofRepositories = byRepository;
        SetsInUse people = of(account);
        if (ofRepositories.keySet().stream().noneMatch(sees)) {
            return people;
        }
        NavigableMap<String, SetsInUse.Entry> all = new TreeMap<>(people.entries());
        ofRepositories.forEach((repository, sets) -> {
            if (sees.test(repository)) {
                sets.forEach(all::putIfAbsent);
            }
        });
        return new SetsInUse(all, cache);
    }

    private SetsInUse of(Optional<String> account) {
        Map<String, SetsInUse> now = byOwner;
        return account.map(now::get).orElseGet(() -> now.get(SHARED));
    }

    /** The repositories that keep sets in files. */
    public Set<String> keepers() {
        return byRepository.keySet();
    }

    /**
     * Takes over the sets that a repository keeps in files; others that it had go.
     *
     * @param sources the files that they come from, by name
     * @param standing files of which what they held stays
     */
    public synchronized void follow(
            String repository,
            Map<String, ExclusionSetInfo.Change> sets,
            Map<String, String> sources,
            Collection<String> standing) {
        Map<String, ExclusionSetRecord> before = records.findByOwner(Repository.KEEPER + repository).stream()
                .collect(Collectors.toMap(ExclusionSetRecord::name, record -> record));
        List<ExclusionSetRecord> gone = before.values().stream()
                .filter(record -> !sets.containsKey(record.name()) && !standing.contains(record.source()))
                .toList();
        List<ExclusionSetRecord> changed = new ArrayList<>();
        sets.forEach((name, change) -> {
            ExclusionSetRecord record =
                    before.getOrDefault(name, new ExclusionSetRecord(Repository.KEEPER + repository, name));
            String description =
                    Objects.requireNonNullElse(change.description(), "").strip();
            if (!change.patterns().equals(record.patterns())
                    || !description.equals(record.description())
                    || !sources.get(name).equals(record.source())) {
                record.change(description, change.patterns(), false);
                record.source(sources.get(name));
                changed.add(record);
            }
        });
        if (!gone.isEmpty() || !changed.isEmpty()) {
            transaction.executeWithoutResult(_ -> {
                records.deleteAll(gone);
                records.saveAll(changed);
                news.tell(News.Kind.SETS, 0);
            });
            load();
        }
    }

    /** @throws BadRequestException if a repository cannot keep such a set */
    public static void checkKept(String name, ExclusionSetInfo.Change change) {
        check(name, change);
        if (Boolean.TRUE.equals(change.byDefault())) {
            throw new BadRequestException("The set " + name
                    + " is by-default: what every search leaves out is decided in the service. Leave by-default out.");
        }
    }

    /**
     * Makes a set, or changes one.
     *
     * @param owner the account whose own it is; empty for all
     * @throws ConflictException if it was changed since the version that is named, or is there already
     */
    public synchronized ExclusionSetInfo save(Optional<String> owner, String name, ExclusionSetInfo.Change change) {
        check(name, change);
        try {
            transaction.executeWithoutResult(_ -> {
                Optional<ExclusionSetRecord> found = records.findByOwnerAndName(owner.orElse(SHARED), name);
                if (change.version() == null && found.isPresent()) {
                    throw new ConflictException(
                            "There is an exclusion set " + name + " already. Choose another name, or change that one.");
                }
                if (change.version() != null) {
                    Versions.check(ONE, name, found.map(there -> there.version()), change.version());
                }
                write(owner, found, name, change);
                news.tell(News.Kind.SETS, 0);
            });
        } catch (ObjectOptimisticLockingFailureException | DataIntegrityViolationException e) {
            throw Versions.changedMeanwhile(ONE, name);
        }
        changed(owner);
        return of(owner).get(name);
    }

    /** Makes or replaces several sets at once, or none if anything is wrong. @param owner empty for all */
    public synchronized List<ExclusionSetInfo> saveAll(
            Optional<String> owner, Map<String, ExclusionSetInfo.Change> sets, boolean replaces) {
        NavigableMap<String, SetsInUse.Entry> there = of(owner).entries();
        List<String> taken = sets.keySet().stream()
                .filter(name ->
                        there.containsKey(name) && there.get(name).info().own() == owner.isPresent())
                .toList();
        if (!replaces && !taken.isEmpty()) {
            throw new ConflictException("There are exclusion sets of these names already: " + String.join(", ", taken)
                    + ". Nothing was changed. Ask for them to be replaced, or rename them in the file.");
        }
        sets.forEach(ExclusionSets::check);
        transaction.executeWithoutResult(_ -> {
            sets.forEach((name, change) ->
                    write(owner, records.findByOwnerAndName(owner.orElse(SHARED), name), name, change));
            news.tell(News.Kind.SETS, 0);
        });
        changed(owner);
        return sets.keySet().stream().map(of(owner)::get).toList();
    }

    private void write(
            Optional<String> owner, Optional<ExclusionSetRecord> found, String name, ExclusionSetInfo.Change change) {
        ExclusionSetRecord record = found.orElseGet(() -> new ExclusionSetRecord(owner.orElse(SHARED), name));
        record.change(
                Objects.requireNonNullElse(change.description(), "").strip(),
                change.patterns(),
                Boolean.TRUE.equals(change.byDefault()));
        records.save(record);
    }

    /** @param owner empty for all @param version that was seen */
    public synchronized void remove(Optional<String> owner, String name, Optional<Long> version) {
        transaction.executeWithoutResult(_ -> {
            Optional<ExclusionSetRecord> found = records.findByOwnerAndName(owner.orElse(SHARED), name);
            if (found.isEmpty()) {
                throw notThere(name);
            }
            version.ifPresent(seen -> Versions.check(ONE, name, found.map(there -> there.version()), seen));
            records.delete(found.get());
            news.tell(News.Kind.SETS, 0);
        });
        changed(owner);
    }

    private synchronized void changed(Optional<String> owner) {
        load();
        if (owner.isEmpty()) {
            events.send("exclusion-sets", Optional.empty(), of(owner).all());
        }
    }

    static NotFoundException notThere(String name) {
        return new NotFoundException("There is no exclusion set " + name + ". GET /api/v1/exclusion-sets lists all.");
    }

    private static void check(String name, ExclusionSetInfo.Change change) {
        GivenNames.check("an exclusion set", name);
        GivenNames.checkDescription(name, change.description());
        if (change.patterns() == null || change.patterns().length() > LONGEST_PATTERNS) {
            throw new BadRequestException("The patterns of " + name + " are missing or longer than " + LONGEST_PATTERNS
                    + " characters. Give one pattern a line.");
        }
        ExclusionSet.Parsed parsed = ExclusionSet.parse(change.patterns());
        if (!parsed.mistakes().isEmpty()) {
            throw new InvalidQueryException(parsed.mistakes());
        }
        if (parsed.set().patterns().isEmpty()) {
            throw new BadRequestException(
                    "The exclusion set " + name + " has no patterns. Write at least one, one a line.");
        }
    }
}
