package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** What came and what went in one repository, of a watched search. */
@Entity
@Table(name = "notice")
public class NoticeRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long searchId;
    private Instant happened;
    private String repository;
    private int came;
    private int went;

    @Column(columnDefinition = "longblob")
    private byte[] results;

    protected NoticeRecord() {}

    /** @param results those that came, then those that went: JSON lines, compressed */
    public NoticeRecord(long searchId, Instant happened, String repository, int came, int went, byte[] results) {
        this.searchId = searchId;
        this.happened = happened.truncatedTo(ChronoUnit.MICROS);
        this.repository = repository;
        this.came = came;
        this.went = went;
        this.results = results.clone();
    }

    public long id() {
        return id;
    }

    public long searchId() {
        return searchId;
    }

    public Instant happened() {
        return happened;
    }

    public String repository() {
        return repository;
    }

    public int came() {
        return came;
    }

    public int went() {
        return went;
    }

    public byte[] results() {
        return results.clone();
    }
}
