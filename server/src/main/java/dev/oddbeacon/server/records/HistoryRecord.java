package dev.oddbeacon.server.records;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A live file with the past of a repository. */
@Entity
@Table(name = "history")
public class HistoryRecord {
    @Id
    private String file;

    private long repositoryId;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private long byteCount;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private Instant created;

    protected HistoryRecord() {}

    public HistoryRecord(String file, long repositoryId, long byteCount) {
        this.file = file;
        this.repositoryId = repositoryId;
        this.byteCount = byteCount;
        this.created = Instant.now();
    }

    /** Its name in the index folder. */
    public String file() {
        return file;
    }

    public long repositoryId() {
        return repositoryId;
    }
}
