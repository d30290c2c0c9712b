package dev.oddbeacon.server.records;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface SavedSearchRecords extends JpaRepository<SavedSearchRecord, Long> {
    Optional<SavedSearchRecord> findByOwnerAndName(String owner, String name);

    List<SavedSearchRecord> findByOwner(String owner);

    List<SavedSearchRecord> findByOwnerStartingWith(String owners);

    List<SavedSearchRecord> findByOwnerIn(Collection<String> owners);
}
