package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface WorklistRecords extends JpaRepository<WorklistRecord, Long> {
    @Query("select worklist.searchId from WorklistRecord worklist")
    List<Long> searches();
}
