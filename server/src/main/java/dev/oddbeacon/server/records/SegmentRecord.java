package dev.oddbeacon.server.records;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A live segment. */
@Entity
@Table(name = "segment")
public class SegmentRecord {
    @Id
    private String file;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private long byteCount;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private Instant created;

    protected SegmentRecord() {}

    public SegmentRecord(String file, long byteCount) {
        this.file = file;
        this.byteCount = byteCount;
        this.created = Instant.now();
    }

    /** Its name in the index folder. */
    public String file() {
        return file;
    }
}
