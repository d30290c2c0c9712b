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

    /** How many items of a repository are in a state, and how many of them are claimed. */
    record Amount(String repository, String state, long items, long claimed) {}

    @Query("select new dev.oddbeacon.server.records.WorklistItemRecords$Amount("
            + "item.repository, item.state, count(item), count(item.claimedBy))"
            + " from WorklistItemRecord item where item.searchId = :searchId group by item.repository, item.state")
    List<Amount> amounts(long searchId);

    @Query("select distinct item.repository from WorklistItemRecord item where item.searchId = :searchId")
    List<String> repositories(long searchId);
}
