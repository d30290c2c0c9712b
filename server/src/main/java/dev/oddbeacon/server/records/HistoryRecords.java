package dev.oddbeacon.server.records;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

public interface HistoryRecords extends JpaRepository<HistoryRecord, String> {
    List<HistoryRecord> findByRepositoryIdIn(Collection<Long> repositoryIds);
}
