package dev.oddbeacon.server.records;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface DeskRecords extends JpaRepository<DeskRecord, Long> {
    List<DeskRecord> findByAccount(String account);

    Optional<DeskRecord> findByAccountAndPart(String account, String part);
}
