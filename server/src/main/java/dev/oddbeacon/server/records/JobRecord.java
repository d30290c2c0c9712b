package dev.oddbeacon.server.records;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.Optional;

/** A repository to be fetched and indexed. Deleted when that is done, well or badly. */
@Entity
@Table(name = "job")
public class JobRecord {
    private static final int LONGEST_HOST = 255;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private Long repositoryId;
    private String host;
    private boolean running;
    private Long processId;
    private boolean purges;
    private int attempts;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private Instant created;

    protected JobRecord() {}

    /**
     * @param host that it fetches from, in small letters; empty for a folder
     * @param purges whether nothing of what was fetched before is to be left
     */
    public JobRecord(Long repositoryId, String host, boolean purges) {
        this.purges = purges;
        this.repositoryId = repositoryId;
        this.host = host.substring(0, Math.min(host.length(), LONGEST_HOST));
        this.created = Instant.now();
    }

    public Long id() {
        return id;
    }

    public Long repositoryId() {
        return repositoryId;
    }

    public String host() {
        return host;
    }

    public boolean running() {
        return running;
    }

    public boolean purges() {
        return purges;
    }

    /** How often it was begun and neither ended nor was stopped with the service. */
    public int attempts() {
        return attempts;
    }

    /** The process that is at it, or was when it ended. */
    public Optional<Long> process() {
        return Optional.ofNullable(processId);
    }
}
