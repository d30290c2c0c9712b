package dev.oddbeacon.server.catalogue;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.google.re2j.Pattern;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.records.ExclusionSetRecord;
import dev.oddbeacon.server.records.ExclusionSetRecords;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.NotFoundException;
import jakarta.annotation.PostConstruct;
import java.nio.file.Path;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.orm.ObjectOptimisticLockingFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The exclusion sets, in memory as they are in the records, and what each takes out of the snapshots that were searched
 * lately.
 */
@Component
public class ExclusionSets {
    private static final Pattern NAME = Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]{0,99}");
    private static final int LONGEST_DESCRIPTION = 500;
    private static final int LONGEST_PATTERNS = 2_000_000;
    private static final long CACHE_BYTES = 64L << 20;

    /** A set, ready to be applied. */
    private record Entry(ExclusionSetInfo info, ExclusionSet set) {}

    private record Applied(String name, long version, Path snapshot) {}

    private final ExclusionSetRecords records;
    private final TransactionTemplate transaction;
    private final Events events;
    private final Cache<Applied, BitSet> cache = Caffeine.newBuilder()
            .maximumWeight(CACHE_BYTES)
            .weigher((Applied _, BitSet files) -> 100 + files.size() / 8)
            .build();
    private volatile Map<String, Entry> entries = Map.of();

    ExclusionSets(ExclusionSetRecords records, TransactionTemplate transaction, Events events) {
        this.records = records;
        this.transaction = transaction;
        this.events = events;
    }

    @PostConstruct
    synchronized void load() {
        Map<String, Entry> loaded = new TreeMap<>();
        for (ExclusionSetRecord record : records.findAll()) {
            ExclusionSetInfo info = new ExclusionSetInfo(
                    record.name(),
                    record.description(),
                    record.isByDefault(),
                    record.patterns(),
                    record.version(),
                    record.changed());
            loaded.put(
                    record.name(),
                    new Entry(info, ExclusionSet.parse(record.patterns()).set()));
        }
        entries = loaded;
    }

    /** All sets, by name. */
    public List<ExclusionSetInfo> all() {
        return entries.values().stream().map(Entry::info).toList();
    }

    public Optional<ExclusionSetInfo> find(String name) {
        return Optional.ofNullable(entries.get(name)).map(Entry::info);
    }

    /** @throws NotFoundException if there is none of that name */
    public ExclusionSetInfo get(String name) {
        return find(name).orElseThrow(() -> notThere(name));
    }

    /** The patterns of a set. */
    public Optional<ExclusionSet> patterns(String name) {
        return Optional.ofNullable(entries.get(name)).map(Entry::set);
    }

    /** The names of the sets that every search applies. */
    public List<String> defaults() {
        return entries.values().stream()
                .filter(entry -> entry.info.byDefault())
                .map(entry -> entry.info.name())
                .toList();
    }

    /** The sets as they are now: a search keeps what it began with. */
    public Exclusions current() {
        Map<String, Entry> now = entries;
        return (name, snapshot) -> excluded(now, name, snapshot);
    }

    private BitSet excluded(Map<String, Entry> now, String name, SnapshotReader snapshot) {
        Entry entry = now.get(name);
        if (entry == null) {
            throw new InvalidQueryException(
                    "There is no exclusion set " + name + " any more. Leave it out of the search.");
        }
        return cache.get(
                new Applied(name, entry.info.version(), snapshot.file().getFileName()),
                _ -> entry.set.excluded(snapshot));
    }

    /**
     * Makes a set, or changes one.
     *
     * @throws ConflictException if it was changed since the version that is named, or is there already
     */
    public synchronized ExclusionSetInfo save(String name, ExclusionSetInfo.Change change) {
        check(name, change);
        try {
            transaction.executeWithoutResult(_ -> {
                Optional<ExclusionSetRecord> found = records.findByName(name);
                if (change.version() == null && found.isPresent()) {
                    throw new ConflictException(
                            "There is an exclusion set " + name + " already. Choose another name, or change that one.");
                }
                if (change.version() != null) {
                    checkVersion(name, found, change.version());
                }
                write(found, name, change);
            });
        } catch (ObjectOptimisticLockingFailureException | DataIntegrityViolationException e) {
            throw changedMeanwhile(name);
        }
        changed();
        return find(name).orElseThrow();
    }

    /** Makes or replaces several sets at once, or none if anything is wrong. */
    public synchronized List<ExclusionSetInfo> saveAll(Map<String, ExclusionSetInfo.Change> sets, boolean replaces) {
        List<String> taken = sets.keySet().stream().filter(entries::containsKey).toList();
        if (!replaces && !taken.isEmpty()) {
            throw new ConflictException("There are exclusion sets of these names already: " + String.join(", ", taken)
                    + ". Nothing was changed. Ask for them to be replaced, or rename them in the file.");
        }
        sets.forEach(ExclusionSets::check);
        transaction.executeWithoutResult(
                _ -> sets.forEach((name, change) -> write(records.findByName(name), name, change)));
        changed();
        return sets.keySet().stream().map(this::get).toList();
    }

    private void write(Optional<ExclusionSetRecord> found, String name, ExclusionSetInfo.Change change) {
        ExclusionSetRecord record = found.orElseGet(() -> new ExclusionSetRecord(name));
        record.change(
                Objects.requireNonNullElse(change.description(), "").strip(),
                change.patterns(),
                Boolean.TRUE.equals(change.byDefault()));
        records.save(record);
    }

    public synchronized void remove(String name, Optional<Long> version) {
        transaction.executeWithoutResult(_ -> {
            Optional<ExclusionSetRecord> found = records.findByName(name);
            if (found.isEmpty()) {
                throw notThere(name);
            }
            version.ifPresent(seen -> checkVersion(name, found, seen));
            records.delete(found.get());
        });
        changed();
    }

    private void changed() {
        load();
        events.send("exclusion-sets", Optional.empty(), all());
    }

    private static void checkVersion(String name, Optional<ExclusionSetRecord> found, long seen) {
        if (found.isEmpty()) {
            throw new ConflictException("The exclusion set " + name
                    + " was removed by somebody else meanwhile. Save it under a new name if it is still wanted.");
        }
        if (found.get().version() != seen) {
            throw changedMeanwhile(name);
        }
    }

    private static ConflictException changedMeanwhile(String name) {
        return new ConflictException("Somebody else changed the exclusion set " + name
                + " meanwhile. Nothing was saved. Look at it again, and repeat the change.");
    }

    static NotFoundException notThere(String name) {
        return new NotFoundException("There is no exclusion set " + name + ". GET /api/v1/exclusion-sets lists all.");
    }

    private static void check(String name, ExclusionSetInfo.Change change) {
        if (!NAME.matcher(name).matches()) {
            throw new BadRequestException(
                    "\"" + name
                            + "\" cannot be an exclusion set's name. Take up to 100 letters, digits, spaces, dots, dashes and underscores, the first a letter or digit.");
        }
        if (change.patterns() == null || change.patterns().length() > LONGEST_PATTERNS) {
            throw new BadRequestException("The patterns of " + name + " are missing or longer than " + LONGEST_PATTERNS
                    + " characters. Give one pattern a line.");
        }
        if (change.description() != null && change.description().length() > LONGEST_DESCRIPTION) {
            throw new BadRequestException("The description of " + name + " has more than " + LONGEST_DESCRIPTION
                    + " characters. Shorten it.");
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

    public List<String> names() {
        return List.copyOf(entries.keySet());
    }
}
