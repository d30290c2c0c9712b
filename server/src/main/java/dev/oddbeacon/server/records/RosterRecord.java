package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.Optional;

/** A list of repositories that is followed. */
@Entity
@Table(name = "roster")
public class RosterRecord {
    private static final int LONGEST_PROBLEM = 2_000;

    @Id
    private String name;

    @Column(columnDefinition = "mediumtext")
    private String definition;

    private Instant readAt;
    private String problem;
    private int leftOut;

    protected RosterRecord() {}

    /** @param definition as JSON */
    public RosterRecord(String name, String definition) {
        this.name = name;
        this.definition = definition;
    }

    public String name() {
        return name;
    }

    public String definition() {
        return definition;
    }

    public Optional<Instant> readAt() {
        return Optional.ofNullable(readAt);
    }

    public Optional<String> problem() {
        return Optional.ofNullable(problem);
    }

    public int leftOut() {
        return leftOut;
    }

    /** It was read. @param odd what is odd about it */
    public void read(Instant now, Optional<String> odd, int entriesLeftOut) {
        readAt = now;
        leftOut = entriesLeftOut;
        problem(odd);
    }

    public void problem(Optional<String> why) {
        problem = why.map(text -> text.substring(0, Math.min(text.length(), LONGEST_PROBLEM)))
                .orElse(null);
    }
}
