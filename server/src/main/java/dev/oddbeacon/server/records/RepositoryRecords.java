package dev.oddbeacon.server.records;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface RepositoryRecords extends JpaRepository<RepositoryRecord, Long> {
    Optional<RepositoryRecord> findByName(String name);
}
