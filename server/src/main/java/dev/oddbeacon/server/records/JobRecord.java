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

    public void running(boolean value) {
        running = value;
    }
}
