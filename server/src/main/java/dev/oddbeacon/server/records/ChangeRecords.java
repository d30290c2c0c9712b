package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.List;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface ChangeRecords extends JpaRepository<ChangeRecord, Long> {
    /** @param account null for all @param action null for all @param since null for all @param until null for all */
    @Query("select c from ChangeRecord c where c.id < :before and (:account is null or c.account = :account)"
            + " and (:action is null or c.action = :action) and (:since is null or c.happened >= :since)"
            + " and (:until is null or c.happened < :until) order by c.id desc")
    List<ChangeRecord> before(long before, String account, String action, Instant since, Instant until, Limit limit);
}
