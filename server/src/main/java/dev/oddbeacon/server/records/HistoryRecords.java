package dev.oddbeacon.server.records;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface HistoryRecords extends JpaRepository<HistoryRecord, String> {
    /** The names of all files. */
    @Query("select history.file from HistoryRecord history")
    List<String> files();

    /** What the files of a repository take. */
    @Query(
            "select coalesce(sum(history.byteCount), 0) from HistoryRecord history where history.repositoryId = :repositoryId")
    long bytes(long repositoryId);

    /** @return how many of them there were */
    @Modifying
    @Query("delete from HistoryRecord history where history.file in :files")
    int deleteNamed(Collection<String> files);

    @Modifying
    @Query("delete from HistoryRecord history where history.repositoryId = :repositoryId")
    void deleteByRepositoryId(long repositoryId);

    List<HistoryRecord> findByRepositoryIdIn(Collection<Long> repositoryIds);
}
