package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.records.JobRecord;
import dev.oddbeacon.server.records.JobRecords;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import jakarta.annotation.PostConstruct;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
    private final News news;
    private final Object publishing = new Object();

    RepositoryChanges(
            RepositoryRecords records,
            JobRecords jobs,
            TransactionTemplate transaction,
            Catalogue catalogue,
            News news) {
        this.records = records;
        this.jobs = jobs;
        this.transaction = transaction;
        this.catalogue = catalogue;
        this.news = news;
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
            news.tell(News.Kind.REPOSITORY, added.id());
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
            Optional<RepositoryRecord> record = records.findToChange(id);
            record.ifPresent(fresh -> {
                change.accept(fresh);
                news.tell(News.Kind.REPOSITORY, id);
            });
            return record.isPresent();
        }));
        return found ? publish(id) : Optional.empty();
    }

    /** Changes the records of several repositories in one transaction. @param change says which it changed */
    public void changeSome(Supplier<List<Long>> change) {
        transaction
                .execute(_ -> {
                    List<Long> changed = change.get();
                    changed.forEach(id -> news.tell(News.Kind.REPOSITORY, id));
                    return changed;
                })
                .forEach(this::publish);
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

    /** Tells everybody, in other processes too, that a job of a repository has begun or was put back. */
    public void tell(long id) {
        transaction.executeWithoutResult(_ -> news.tell(News.Kind.REPOSITORY, id));
        publish(id);
    }

    /** Another process has removed a repository. @return whether it was known here */
    public boolean forget(long id) {
        synchronized (publishing) {
            Optional<Repository> known = catalogue.find(id);
            known.ifPresent(catalogue::remove);
            return known.isPresent();
        }
    }

    /** Makes known what the records say of all repositories now. */
    public void reload() {
        Set<Long> there = new HashSet<>(records.ids());
        for (Repository known : catalogue.all()) {
            if (!there.contains(known.id())) {
                forget(known.id());
            }
        }
        there.forEach(this::publish);
    }

    /** Removes the record of a repository. @param also what else is removed in the same transaction */
    public void remove(Repository repository, Runnable also) {
        transaction.executeWithoutResult(_ -> {
            also.run();
            records.deleteWhole(repository.id());
            news.tell(News.Kind.REPOSITORY, repository.id());
        });
        synchronized (publishing) {
            catalogue.remove(repository);
        }
    }
}
