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

/**
 * A search with a name. Its version goes up with each change, so that nobody overwrites what they have not seen.
 */
@Entity
@Table(name = "saved_search")
public class SavedSearchRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String owner;
    private String name;
    private String description;

    @Column(columnDefinition = "varchar(16)")
    private String subject;

    @Column(columnDefinition = "mediumtext")
    private String parameters;

    @Column(columnDefinition = "mediumtext")
    private String replacement;

    @Version
    private long version;

    private Instant changed;
    private String changedBy;

    @Column(columnDefinition = "varchar(2000)")
    private String source = "";

    protected SavedSearchRecord() {}

    /** @param owner whose it is; empty for everybody's */
    public SavedSearchRecord(String owner, String name) {
        this.owner = owner;
        this.name = name;
    }

    public long id() {
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

    public String subject() {
        return subject;
    }

    /** As JSON: lists of texts by name. */
    public String parameters() {
        return parameters;
    }

    /** What stands instead of what it finds, as JSON. */
    public Optional<String> replacement() {
        return Optional.ofNullable(replacement);
    }

    public void replacement(Optional<String> json) {
        replacement = json.orElse(null);
    }

    public long version() {
        return version;
    }

    public Instant changed() {
        return changed;
    }

    /** The account that changed it last. */
    public Optional<String> changedBy() {
        return Optional.ofNullable(changedBy);
    }

    /** The file of its repository that it comes from; empty for one that people keep. */
    public String source() {
        return source;
    }

    public void source(String path) {
        source = path;
    }

    public void change(String newDescription, String newSubject, String newParameters, Optional<String> by) {
        description = newDescription;
        subject = newSubject;
        parameters = newParameters;
        changed = Instant.now().truncatedTo(ChronoUnit.MICROS);
        changedBy = by.orElse(null);
    }
}
