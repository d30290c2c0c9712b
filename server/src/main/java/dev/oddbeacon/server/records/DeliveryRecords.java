package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface DeliveryRecords extends JpaRepository<DeliveryRecord, Long> {
    List<DeliveryRecord> findByWatchIdOrderByIdDesc(long watchId, Limit most);

    Optional<DeliveryRecord> findByWatchIdAndId(long watchId, long id);

    List<DeliveryRecord> findByNextAttemptLessThanEqualOrderByNextAttempt(Instant now, Limit most);

    Optional<DeliveryRecord> findFirstByWatchIdOrderByIdDesc(long watchId);

    @Modifying
    @Query("delete from DeliveryRecord delivery where delivery.made < :until")
    int deleteUntil(Instant until);
}
