package dev.oddbeacon.server.records;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface SegmentRecords extends JpaRepository<SegmentRecord, String> {
    /** The names of all files. */
    @Query("select segment.file from SegmentRecord segment")
    List<String> files();

    /** @return how many of them there were */
    @Modifying
    @Query("delete from SegmentRecord segment where segment.file in :files")
    int deleteNamed(Collection<String> files);
}
