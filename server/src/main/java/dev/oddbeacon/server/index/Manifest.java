package dev.oddbeacon.server.index;

import dev.oddbeacon.core.snapshot.ViewBuilder.Wanted;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.RepeatedTransactions;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecords;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;

/**
 * Which files are live: what the records say at one moment.
 *
 * @param repositories by name
 */
record Manifest(List<Path> segments, SortedMap<String, Live> repositories) {
    static final Manifest EMPTY = new Manifest(List.of(), Collections.emptySortedMap());

    /**
     * The live files of a repository.
     *
     * @param id of its record
     * @param branches by name
     * @param past those that tell its past
     */
    record Live(long id, List<Wanted> branches, List<Path> past) {}

    /** In the order of repositories and names. */
    List<Wanted> branches() {
        return repositories.values().stream()
                .flatMap(live -> live.branches.stream())
                .toList();
    }

    /** All of them. */
    Stream<Path> files() {
        return Stream.concat(
                segments.stream(),
                repositories.values().stream()
                        .flatMap(live ->
                                Stream.concat(live.branches.stream().map(Wanted::snapshot), live.past.stream())));
    }

    /** In the order of names. */
    Map<String, List<Path>> pasts() {
        Map<String, List<Path>> pasts = new LinkedHashMap<>();
        repositories.forEach((name, live) -> pasts.put(name, live.past));
        return pasts;
    }

    /**
     * Reads it from the records, in one transaction that sees them as they are at its beginning.
     *
     * <p>Concurrency: one thread.
     */
    @Component
    static class Reader {
        private final Path folder;
        private final RepositoryRecords repositories;
        private final SegmentRecords segments;
        private final HistoryRecords histories;
        private final News.Reader news;
        private final Set<Long> unseen = new HashSet<>(); // repositories that others have changed
        private final RepeatedTransactions oneMoment;

        Reader(
                Settings settings,
                RepositoryRecords repositories,
                SegmentRecords segments,
                HistoryRecords histories,
                News news,
                PlatformTransactionManager transactions) {
            this.folder = settings.indexFolder();
            this.repositories = repositories;
            this.segments = segments;
            this.histories = histories;
            this.news = news.reader();
            this.oneMoment = new RepeatedTransactions(transactions);
            oneMoment.setReadOnly(true);
            oneMoment.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
        }

        Manifest all() {
            return oneMoment.execute(_ -> new Manifest(segments(), live(repositories.findAll(), histories.findAll())));
        }

        /**
         * The manifest after another, if only these repositories, and segments, have changed here; with what other processes
         * have changed up to the same moment.
         */
        Manifest next(Manifest before, Set<Long> changedHere) {
            return oneMoment.execute(_ -> {
                news.read().stream()
                        .filter(item -> item.kind() == News.Kind.REPOSITORY)
                        .forEach(item -> unseen.add(item.subject()));
                Set<Long> changed = new HashSet<>(changedHere);
                changed.addAll(unseen);
                SortedMap<String, Live> live = new TreeMap<>(before.repositories);
                live.values().removeIf(one -> changed.contains(one.id));
                if (!changed.isEmpty()) {
                    live.putAll(live(repositories.findAllById(changed), histories.findByRepositoryIdIn(changed)));
                }
                return new Manifest(segments(), live);
            });
        }

        /** The last manifest has become a view. */
        void isSeen() {
            unseen.clear();
        }

        private List<Path> segments() {
            return segments.files().stream().sorted().map(folder::resolve).toList();
        }

        private SortedMap<String, Live> live(Collection<RepositoryRecord> records, Collection<HistoryRecord> pasts) {
            Map<Long, List<Path>> files = new HashMap<>();
            pasts.stream()
                    .sorted((a, b) -> a.file().compareTo(b.file()))
                    .forEach(past -> files.computeIfAbsent(past.repositoryId(), _ -> new ArrayList<>())
                            .add(folder.resolve(past.file())));
            SortedMap<String, Live> live = new TreeMap<>();
            for (RepositoryRecord record : records) {
                List<Wanted> branches = record.branches().stream()
                        .sorted(Comparator.comparing(BranchRecord::name))
                        .map(branch -> new Wanted(branch.asBranch(record), folder.resolve(branch.snapshotFile())))
                        .toList();
                live.put(record.name(), new Live(record.id(), branches, files.getOrDefault(record.id(), List.of())));
            }
            return live;
        }
    }
}
