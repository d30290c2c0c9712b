package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface WorklistItemRecords extends JpaRepository<WorklistItemRecord, Long> {
    List<WorklistItemRecord> findBySearchId(long searchId);

    List<WorklistItemRecord> findBySearchIdAndRepository(long searchId, String repository);

    List<WorklistItemRecord> findBySearchIdAndChangedGreaterThanEqual(long searchId, Instant since);

    Optional<WorklistItemRecord> findBySearchIdAndId(long searchId, long id);

    @Query("select distinct item.repository from WorklistItemRecord item where item.searchId = :searchId")
    List<String> repositories(long searchId);
}
