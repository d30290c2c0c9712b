package dev.oddbeacon.server.index;

import dev.oddbeacon.core.snapshot.ViewBuilder.Wanted;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecords;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Which files are live: what the records say at one moment.
 *
 * @param repositories by the ids of their records
 */
record Manifest(List<Path> segments, Map<Long, Live> repositories) {
    static final Manifest EMPTY = new Manifest(List.of(), Map.of());

    /** The live files of a repository. @param past those that tell its past */
    record Live(String name, List<Wanted> branches, List<Path> past) {}

    List<Wanted> branches() {
        return repositories.values().stream()
                .flatMap(live -> live.branches.stream())
                .toList();
    }

    Map<String, List<Path>> pasts() {
        Map<String, List<Path>> pasts = new HashMap<>();
        repositories.values().stream()
                .filter(live -> !live.past.isEmpty())
                .forEach(live -> pasts.put(live.name, live.past));
        return pasts;
    }

    /** Reads it from the records, in one transaction that sees them as they are at its beginning. */
    @Component
    static class Reader {
        private final Path folder;
        private final RepositoryRecords repositories;
        private final SegmentRecords segments;
        private final HistoryRecords histories;
        private final TransactionTemplate oneMoment;

        Reader(
                Settings settings,
                RepositoryRecords repositories,
                SegmentRecords segments,
                HistoryRecords histories,
                PlatformTransactionManager transactions) {
            this.folder = settings.indexFolder();
            this.repositories = repositories;
            this.segments = segments;
            this.histories = histories;
            this.oneMoment = new TransactionTemplate(transactions);
            oneMoment.setReadOnly(true);
            oneMoment.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
        }

        Manifest all() {
            return oneMoment.execute(_ -> new Manifest(segments(), live(repositories.findAll(), histories.findAll())));
        }

        /** The manifest after another, if only these repositories, and segments, have changed. */
        Manifest next(Manifest before, Set<Long> changed) {
            return oneMoment.execute(_ -> {
                Map<Long, Live> live = new HashMap<>(before.repositories);
                live.keySet().removeAll(changed);
                if (!changed.isEmpty()) {
                    live.putAll(live(repositories.findAllById(changed), histories.findByRepositoryIdIn(changed)));
                }
                return new Manifest(segments(), live);
            });
        }

        private List<Path> segments() {
            return segments.files().stream().sorted().map(folder::resolve).toList();
        }

        private Map<Long, Live> live(Collection<RepositoryRecord> records, Collection<HistoryRecord> pasts) {
            Map<Long, List<Path>> files = new HashMap<>();
            pasts.stream()
                    .sorted((a, b) -> a.file().compareTo(b.file()))
                    .forEach(past -> files.computeIfAbsent(past.repositoryId(), _ -> new ArrayList<>())
                            .add(folder.resolve(past.file())));
            Map<Long, Live> live = new HashMap<>();
            for (RepositoryRecord record : records) {
                List<Wanted> branches = record.branches().stream()
                        .map(branch -> new Wanted(branch.asBranch(record), folder.resolve(branch.snapshotFile())))
                        .toList();
                live.put(record.id(), new Live(record.name(), branches, files.getOrDefault(record.id(), List.of())));
            }
            return live;
        }
    }
}
