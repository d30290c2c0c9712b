package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** What a saved search found at some time, kept under a name. */
@Entity
@Table(name = "kept_results")
public class KeptResultsRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    @SuppressWarnings("UnusedVariable") // a column
    private Long id;

    @SuppressWarnings("UnusedVariable") // a column
    private long searchId;

    private String name;
    private Instant kept;
    private String keptBy;

    @Column(columnDefinition = "longblob")
    private byte[] results;

    protected KeptResultsRecord() {}

    public KeptResultsRecord(long searchId, String name) {
        this.searchId = searchId;
        this.name = name;
    }

    public String name() {
        return name;
    }

    public Instant kept() {
        return kept;
    }

    /** The account that kept it. */
    public Optional<String> keptBy() {
        return Optional.ofNullable(keptBy);
    }

    /** JSON lines, compressed. */
    public byte[] results() {
        return results.clone();
    }

    public void keep(byte[] newResults, Instant when, Optional<String> by) {
        results = newResults.clone();
        kept = when.truncatedTo(ChronoUnit.MICROS);
        keptBy = by.orElse(null);
    }
}
