package dev.oddbeacon.server.records;

import org.springframework.data.jpa.repository.JpaRepository;

public interface SegmentRecords extends JpaRepository<SegmentRecord, String> {}
