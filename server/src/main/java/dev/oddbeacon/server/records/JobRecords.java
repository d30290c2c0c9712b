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

    /** Begins a job, unless another process has. @return 1 if it is this one's now */
    @Modifying
    @Query("""
            update JobRecord job set job.running = true, job.processId = :process, job.attempts = job.attempts + 1
            where job.id = :id and job.running = false""")
    int begin(Long id, Long process);

    /** Lets another begin a job: its process stopped, or could not reach the records. This attempt does not count. */
    @Modifying
    @Query("""
            update JobRecord job set job.running = false, job.processId = null, job.attempts = job.attempts - 1
            where job.id = :id and job.running = true and job.processId = :process""")
    int putBack(Long id, Long process);

    /** Lets another begin a job whose process has ended. @param process null for one of an earlier version @return 1 if nobody else has */
    @Modifying
    @Query("""
            update JobRecord job set job.running = false, job.processId = null
            where job.id = :id and job.running = true
                and (job.processId = :process or job.processId is null and :process is null)""")
    int takeBack(Long id, Long process);

    List<JobRecord> findByRepositoryId(Long repositoryId);

    /** In one statement: a job may end, and delete its record, at the same time. */
    @Modifying
    @Query("delete from JobRecord job where job.repositoryId = :repositoryId")
    void deleteByRepositoryId(Long repositoryId);
}
