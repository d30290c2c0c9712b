package dev.oddbeacon.server.records;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A repository to be fetched and indexed. Deleted when that is done, well or badly. */
@Entity
@Table(name = "job")
public class JobRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private Long repositoryId;
    private boolean running;
    private int attempts;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private Instant created;

    protected JobRecord() {}

    public JobRecord(Long repositoryId) {
        this.repositoryId = repositoryId;
        this.created = Instant.now();
    }

    public Long id() {
        return id;
    }

    public Long repositoryId() {
        return repositoryId;
    }

    public boolean running() {
        return running;
    }

    /** How often it was begun and neither ended nor was stopped with the service. */
    public int attempts() {
        return attempts;
    }

    public void begin() {
        running = true;
        attempts++;
    }

    /** The service stopped, or could not reach the records: this attempt does not count. */
    public void putBack() {
        running = false;
        attempts--;
    }

    /** The service ended while it ran. */
    public void interrupted() {
        running = false;
    }
}
