package dev.oddbeacon.server.records;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface AccountRecords extends JpaRepository<AccountRecord, Long> {
    Optional<AccountRecord> findByName(String name);

    Optional<AccountRecord> findBySubject(String subject);
}
