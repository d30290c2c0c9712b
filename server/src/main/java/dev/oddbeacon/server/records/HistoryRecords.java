package dev.oddbeacon.server.records;

import org.springframework.data.jpa.repository.JpaRepository;

public interface HistoryRecords extends JpaRepository<HistoryRecord, String> {}
