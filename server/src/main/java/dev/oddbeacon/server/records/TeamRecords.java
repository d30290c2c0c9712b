package dev.oddbeacon.server.records;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface TeamRecords extends JpaRepository<TeamRecord, Long> {
    Optional<TeamRecord> findByName(String name);
}
