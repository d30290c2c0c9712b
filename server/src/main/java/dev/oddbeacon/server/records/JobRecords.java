package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

public interface JobRecords extends JpaRepository<JobRecord, Long> {
    List<JobRecord> findAllByOrderById();

    List<JobRecord> findByRepositoryId(Long repositoryId);

    void deleteByRepositoryId(Long repositoryId);
}
