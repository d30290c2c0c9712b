package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface ChangeRecords extends JpaRepository<ChangeRecord, Long> {
    /** @param account null for all @param action null for all */
    @Query("select c from ChangeRecord c where c.id < :before and (:account is null or c.account = :account)"
            + " and (:action is null or c.action = :action) order by c.id desc")
    List<ChangeRecord> before(long before, String account, String action, Limit limit);
}
