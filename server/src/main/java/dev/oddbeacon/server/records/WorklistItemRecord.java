package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** An item of a worklist. Its version goes up with each change, so that nobody overwrites what they have not seen. */
@Entity
@Table(name = "worklist_item")
public class WorklistItemRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long searchId;
    private String repository;

    @Column(columnDefinition = "mediumtext")
    private String result;

    @Column(columnDefinition = "varchar(8)")
    private String state;

    private String claimedBy;
    private String why = "";

    @Column(columnDefinition = "varchar(500)")
    private String owners = "";

    private Instant changed;
    private String changedBy;

    @Version
    private long version;

    private static final int LONGEST_OWNERS = 500;

    protected WorklistItemRecord() {}

    /** @param result as JSON */
    public WorklistItemRecord(long searchId, String repository, String result, String state, Instant now) {
        this.searchId = searchId;
        this.repository = repository;
        this.result = result;
        this.state = state;
        this.changed = now.truncatedTo(ChronoUnit.MICROS);
    }

    public long id() {
        return id;
    }

    public long searchId() {
        return searchId;
    }

    public String repository() {
        return repository;
    }

    public String result() {
        return result;
    }

    public String state() {
        return state;
    }

    public Optional<String> claimedBy() {
        return Optional.ofNullable(claimedBy);
    }

    /** Of its file, with spaces between; empty if nobody is named. */
    public String owners() {
        return owners;
    }

    public void owners(String names) {
        owners = names.substring(0, Math.min(LONGEST_OWNERS, names.length()));
    }

    public String why() {
        return why;
    }

    public Instant changed() {
        return changed;
    }

    /** Empty if it changed by itself. */
    public Optional<String> changedBy() {
        return Optional.ofNullable(changedBy);
    }

    public long version() {
        return version;
    }

    /** Somebody changes it. */
    public void change(String newState, Optional<String> claim, String reason, Optional<String> by, Instant now) {
        state = newState;
        claimedBy = claim.orElse(null);
        why = reason;
        changed(by, now);
    }

    /** It stands elsewhere, is gone, or has come back. */
    public void found(String newState, String newResult, Instant now) {
        state = newState;
        result = newResult;
        changed(Optional.empty(), now);
    }

    private void changed(Optional<String> by, Instant now) {
        changed = now.truncatedTo(ChronoUnit.MICROS);
        changedBy = by.orElse(null);
    }
}
