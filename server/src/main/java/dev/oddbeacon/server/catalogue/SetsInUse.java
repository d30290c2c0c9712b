package dev.oddbeacon.server.catalogue;

import com.github.benmanes.caffeine.cache.Cache;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.server.web.NotFoundException;
import java.nio.file.Path;
import java.util.BitSet;
import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;

/**
 * The exclusion sets that one caller has, as they are at one time: those that all share, and the caller's own, which stand
 * in place of shared ones of the same name.
 */
public final class SetsInUse {
    private final NavigableMap<String, Entry> entries;
    private final Cache<Applied, BitSet> cache;

    /** A set, ready to be applied. @param id of its record */
    record Entry(long id, ExclusionSetInfo info, ExclusionSet set) {}

    /** What a set takes out of a snapshot. */
    record Applied(long set, long version, Path snapshot) {}

    SetsInUse(NavigableMap<String, Entry> entries, Cache<Applied, BitSet> cache) {
        this.entries = entries;
        this.cache = cache;
    }

    /** All sets, by name. */
    public List<ExclusionSetInfo> all() {
        return entries.values().stream().map(Entry::info).toList();
    }

    public List<String> names() {
        return List.copyOf(entries.keySet());
    }

    /** @throws NotFoundException if there is none of that name */
    public ExclusionSetInfo get(String name) {
        return Optional.ofNullable(entries.get(name)).map(Entry::info).orElseThrow(() -> ExclusionSets.notThere(name));
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

    /** What the sets take out: a search keeps what it began with. */
    public Exclusions exclusions() {
        return this::excluded;
    }

    private BitSet excluded(String name, SnapshotReader snapshot) {
        Entry entry = entries.get(name);
        if (entry == null) {
            throw new InvalidQueryException(
                    "There is no exclusion set " + name + " any more. Leave it out of the search.");
        }
        return cache.get(
                new Applied(entry.id, entry.info.version(), snapshot.file().getFileName()),
                _ -> entry.set.excluded(snapshot));
    }

    NavigableMap<String, Entry> entries() {
        return entries;
    }
}
