package dev.oddbeacon.server.records;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** A saved search whose results are ticked off. */
@Entity
@Table(name = "worklist")
public class WorklistRecord {
    @Id
    private long searchId;

    private Instant made;
    private String madeBy;

    protected WorklistRecord() {}

    public WorklistRecord(long searchId, Instant made, Optional<String> by) {
        this.searchId = searchId;
        this.made = made.truncatedTo(ChronoUnit.MICROS);
        this.madeBy = by.orElse(null);
    }

    public long searchId() {
        return searchId;
    }

    public Instant made() {
        return made;
    }

    public Optional<String> madeBy() {
        return Optional.ofNullable(madeBy);
    }
}
