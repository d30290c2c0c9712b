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

/**
 * A named list of path patterns. Its version goes up with each change, so that nobody overwrites what they have not
 * seen.
 */
@Entity
@Table(name = "exclusion_set")
public class ExclusionSetRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String owner;
    private String name;
    private String description;

    @Column(columnDefinition = "mediumtext")
    private String patterns;

    private boolean byDefault;

    @Version
    private long version;

    private Instant changed;

    @Column(columnDefinition = "varchar(2000)")
    private String source = "";

    protected ExclusionSetRecord() {}

    /** @param owner the account whose own it is; empty for all */
    public ExclusionSetRecord(String owner, String name) {
        this.owner = owner;
        this.name = name;
    }

    public Long id() {
        return id;
    }

    public String owner() {
        return owner;
    }

    public String name() {
        return name;
    }

    public String description() {
        return description;
    }

    public String patterns() {
        return patterns;
    }

    public boolean isByDefault() {
        return byDefault;
    }

    public long version() {
        return version;
    }

    /** The file of its repository that it comes from; empty for one that people keep. */
    public String source() {
        return source;
    }

    public void source(String path) {
        source = path;
    }

    public Instant changed() {
        return changed;
    }

    public void change(String newDescription, String newPatterns, boolean nowByDefault) {
        description = newDescription;
        patterns = newPatterns;
        byDefault = nowByDefault;
        changed = Instant.now().truncatedTo(ChronoUnit.MICROS);
    }
}
