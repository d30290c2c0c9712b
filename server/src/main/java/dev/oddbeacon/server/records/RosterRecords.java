package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

public interface RosterRecords extends JpaRepository<RosterRecord, String> {
    List<RosterRecord> findAllByOrderByName();
}
