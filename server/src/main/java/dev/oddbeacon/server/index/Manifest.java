package dev.oddbeacon.server.index;

import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecord;
import dev.oddbeacon.server.records.SegmentRecords;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Which files are live: what the records say at one moment. Files are names in the index folder.
 *
 * @param pasts by repository
 */
record Manifest(List<String> segments, List<LiveBranch> branches, Map<String, List<String>> pasts) {
    record LiveBranch(Branch branch, String snapshot) {}

    /** Reads it from the records, in one transaction that sees them as they are at its beginning. */
    @Component
    static class Reader {
        private final RepositoryRecords repositories;
        private final SegmentRecords segments;
        private final HistoryRecords histories;
        private final TransactionTemplate oneMoment;

        Reader(
                RepositoryRecords repositories,
                SegmentRecords segments,
                HistoryRecords histories,
                PlatformTransactionManager transactions) {
            this.repositories = repositories;
            this.segments = segments;
            this.histories = histories;
            this.oneMoment = new TransactionTemplate(transactions);
            oneMoment.setReadOnly(true);
            oneMoment.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
        }

        Manifest read() {
            return oneMoment.execute(_ -> readAll());
        }

        private Manifest readAll() {
            Map<Long, String> names = new HashMap<>();
            List<LiveBranch> branches = new ArrayList<>();
            for (RepositoryRecord repository : repositories.findAll()) {
                names.put(repository.id(), repository.name());
                for (BranchRecord branch : repository.branches()) {
                    branches.add(new LiveBranch(branch.asBranch(repository), branch.snapshotFile()));
                }
            }
            Map<String, List<String>> pasts = new HashMap<>();
            histories.findAll().stream()
                    .filter(history -> names.containsKey(history.repositoryId()))
                    .sorted((a, b) -> a.file().compareTo(b.file()))
                    .forEach(history -> pasts.computeIfAbsent(names.get(history.repositoryId()), _ -> new ArrayList<>())
                            .add(history.file()));
            return new Manifest(
                    segments.findAll().stream()
                            .map(SegmentRecord::file)
                            .sorted()
                            .toList(),
                    branches,
                    pasts);
        }
    }
}
