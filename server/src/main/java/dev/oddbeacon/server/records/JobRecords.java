package dev.oddbeacon.server.records;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface JobRecords extends JpaRepository<JobRecord, Long> {
    List<JobRecord> findByRunningTrue();

    /** The oldest that waits, whose repository and host are none of these. @param busy not empty @param hosts not empty */
    @Query("""
            select job from JobRecord job
            where job.running = false and job.repositoryId not in :busy and job.host not in :hosts
            order by job.id
            limit 1""")
    Optional<JobRecord> findNext(Collection<Long> busy, Collection<String> hosts);

    List<JobRecord> findByRepositoryId(Long repositoryId);

    /** In one statement: a job may end, and delete its record, at the same time. */
    @Modifying
    @Query("delete from JobRecord job where job.repositoryId = :repositoryId")
    void deleteByRepositoryId(Long repositoryId);
}
