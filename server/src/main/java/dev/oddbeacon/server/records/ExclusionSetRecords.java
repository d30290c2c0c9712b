package dev.oddbeacon.server.records;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface ExclusionSetRecords extends JpaRepository<ExclusionSetRecord, Long> {
    Optional<ExclusionSetRecord> findByOwnerAndName(String owner, String name);

    List<ExclusionSetRecord> findByOwner(String owner);
}
