package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import jakarta.annotation.PostConstruct;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The one way to change the record of a repository: in a transaction, after which everybody sees it.
 *
 * <p>Concurrency: several jobs may change one record. What is published is read anew under a lock, so that whoever
 * publishes last publishes the latest.
 */
@Component
public class RepositoryChanges {
    private final RepositoryRecords records;
    private final JobRecords jobs;
    private final TransactionTemplate transaction;
    private final Catalogue catalogue;
    private final Object publishing = new Object();

    RepositoryChanges(
            RepositoryRecords records, JobRecords jobs, TransactionTemplate transaction, Catalogue catalogue) {
        this.records = records;
        this.jobs = jobs;
        this.transaction = transaction;
        this.catalogue = catalogue;
    }

    @PostConstruct
    void load() {
        Map<Long, List<JobRecord>> open =
                jobs.findAll().stream().collect(Collectors.groupingBy(JobRecord::repositoryId));
        catalogue.load(records.findAll().stream()
                .map(record -> Repository.of(record, open.getOrDefault(record.id(), List.of())))
                .toList());
    }

    /** Registers a repository. @param also what else is recorded in the same transaction */
    public Repository add(RepositoryRecord record, Consumer<RepositoryRecord> also) {
        long id = transaction.execute(_ -> {
            RepositoryRecord added = records.save(record);
            also.accept(added);
            return added.id();
        });
        return publish(id).orElseThrow();
    }

    /**
     * Changes the record of a repository.
     *
     * @param change called in a transaction, with the record as it is then; it may record other things as well
     * @return the repository as it is now; empty if it was removed meanwhile
     */
    public Optional<Repository> change(long id, Consumer<RepositoryRecord> change) {
        boolean found = Boolean.TRUE.equals(transaction.execute(_ -> {
            Optional<RepositoryRecord> record = records.findById(id);
            record.ifPresent(change);
            return record.isPresent();
        }));
        return found ? publish(id) : Optional.empty();
    }

    /** Changes the records of several repositories in one transaction. @param change says which it changed */
    public void changeSome(Supplier<List<Long>> change) {
        transaction.execute(_ -> change.get()).forEach(this::publish);
    }

    /** Tells everybody what the records say of a repository now. @return empty if it was removed meanwhile */
    public Optional<Repository> publish(long id) {
        synchronized (publishing) {
            Optional<Repository> repository = transaction.execute(
                    _ -> records.findById(id).map(record -> Repository.of(record, jobs.findByRepositoryId(id))));
            repository.ifPresent(catalogue::put);
            return repository;
        }
    }

    /** Removes the record of a repository. @param also what else is removed in the same transaction */
    public void remove(Repository repository, Runnable also) {
        transaction.executeWithoutResult(_ -> {
            also.run();
            records.deleteWhole(repository.id());
        });
        synchronized (publishing) {
            catalogue.remove(repository);
        }
    }
}
