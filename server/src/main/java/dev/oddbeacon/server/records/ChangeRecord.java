package dev.oddbeacon.server.records;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** Something that was done: by whom, from where, to what. */
@Entity
@Table(name = "record_of_change")
public class ChangeRecord {
    private static final int LONGEST_SUBJECT = 300;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private Instant happened;
    private String account;
    private String token;
    private String address;
    private String action;
    private String subject;

    protected ChangeRecord() {}

    public ChangeRecord(
            Optional<String> account, Optional<String> token, String address, String action, String subject) {
        this.happened = Instant.now().truncatedTo(ChronoUnit.MICROS);
        this.account = account.orElse(null);
        this.token = token.orElse(null);
        this.address = address;
        this.action = action;
        this.subject = subject.substring(0, Math.min(LONGEST_SUBJECT, subject.length()));
    }

    public Long id() {
        return id;
    }

    public Instant happened() {
        return happened;
    }

    public Optional<String> account() {
        return Optional.ofNullable(account);
    }

    public Optional<String> token() {
        return Optional.ofNullable(token);
    }

    public String address() {
        return address;
    }

    public String action() {
        return action;
    }

    public String subject() {
        return subject;
    }
}
