package dev.oddbeacon.server.records;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface HistoryRecords extends JpaRepository<HistoryRecord, String> {
    /** The names of all files. */
    @Query("select history.file from HistoryRecord history")
    List<String> files();

    List<HistoryRecord> findByRepositoryIdIn(Collection<Long> repositoryIds);
}
