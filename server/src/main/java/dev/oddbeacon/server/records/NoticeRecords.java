package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.List;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface NoticeRecords extends JpaRepository<NoticeRecord, Long> {
    List<NoticeRecord> findBySearchIdAndIdLessThanOrderByIdDesc(long searchId, long before, Limit most);

    List<NoticeRecord> findBySearchIdAndIdGreaterThanOrderById(long searchId, long after, Limit most);

    List<NoticeRecord> findBySearchIdAndIdBetweenOrderById(long searchId, long first, long last);

    @Query("select coalesce(max(notice.id), 0) from NoticeRecord notice where notice.searchId = :searchId")
    long last(long searchId);

    @Modifying
    @Query("delete from NoticeRecord notice where notice.happened < :until")
    int deleteUntil(Instant until);
}
