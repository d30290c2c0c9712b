package dev.oddbeacon.server.records;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface KeptResultsRecords extends JpaRepository<KeptResultsRecord, Long> {
    List<KeptResultsRecord> findBySearchIdOrderByKept(long searchId);

    Optional<KeptResultsRecord> findBySearchIdAndName(long searchId, String name);
}
