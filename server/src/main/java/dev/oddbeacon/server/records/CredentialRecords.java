package dev.oddbeacon.server.records;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface CredentialRecords extends JpaRepository<CredentialRecord, Long> {
    Optional<CredentialRecord> findByHostAndKind(String host, String kind);
}
