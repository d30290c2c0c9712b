package dev.oddbeacon.server.records;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface WatchRecords extends JpaRepository<WatchRecord, Long> {
    List<WatchRecord> findByOwner(String owner);

    Optional<WatchRecord> findByOwnerAndSearchId(String owner, long searchId);

    Optional<WatchRecord> findByFeed(String hash);

    @Query("select distinct watch.searchId from WatchRecord watch")
    List<Long> watched();

    @Modifying
    @Query("update WatchRecord watch set watch.told = :notice where watch.id = :id and watch.told < :notice")
    int tell(long id, long notice);
}
