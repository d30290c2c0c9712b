package dev.oddbeacon.server.records;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface TokenRecords extends JpaRepository<TokenRecord, Long> {
    List<TokenRecord> findByAccount(String account);

    @Modifying
    @Query("delete from TokenRecord token where token.account = :account")
    void deleteByAccount(String account);
}
