package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface JobRecords extends JpaRepository<JobRecord, Long> {
    List<JobRecord> findAllByOrderById();

    List<JobRecord> findByRepositoryId(Long repositoryId);

    /** In one statement: a job may end, and delete its record, at the same time. */
    @Modifying
    @Query("delete from JobRecord job where job.repositoryId = :repositoryId")
    void deleteByRepositoryId(Long repositoryId);
}
