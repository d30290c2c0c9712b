package dev.oddbeacon.server.records;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface RepositoryRecords extends JpaRepository<RepositoryRecord, Long> {
    Optional<RepositoryRecord> findByName(String name);

    /** For whoever is about to change it: others who want the same wait until this transaction ends. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select repository from RepositoryRecord repository where repository.id = :id")
    Optional<RepositoryRecord> findToChange(Long id);

    @Query("select repository.id from RepositoryRecord repository")
    List<Long> ids();

    /** The names of the files of all snapshots. */
    @Query("select branch.snapshotFile from BranchRecord branch")
    List<String> snapshotFiles();

    /**
     * Deletes a record with all that belongs to it, in one statement: a job may be changing some of it at the same
     * time.
     */
    @Modifying
    @Query("delete from RepositoryRecord repository where repository.id = :id")
    void deleteWhole(Long id);
}
