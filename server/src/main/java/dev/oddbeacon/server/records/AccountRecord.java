package dev.oddbeacon.server.records;

import dev.oddbeacon.api.Role;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** A person who signs in. Its name is never given again. */
@Entity
@Table(name = "account")
public class AccountRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;
    private String displayName;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private Role role;

    private String password;
    private Instant created;
    private Instant ended;
    private String subject;

    @Column(columnDefinition = "varbinary(8000)")
    private byte[] issuerGrant;

    private Instant confirmed;

    protected AccountRecord() {}

    public AccountRecord(String name) {
        this.name = name;
        this.displayName = name;
        this.role = Role.READER;
        this.created = Instant.now().truncatedTo(ChronoUnit.MICROS);
    }

    public String name() {
        return name;
    }

    public String displayName() {
        return displayName;
    }

    public void displayName(String newName) {
        displayName = newName;
    }

    public Role role() {
        return role;
    }

    public void role(Role newRole) {
        role = newRole;
    }

    /** Its hash, with its parameters; empty if it has none. */
    public Optional<String> password() {
        return Optional.ofNullable(password);
    }

    public void password(String hash) {
        password = hash;
    }

    public Instant created() {
        return created;
    }

    /** When it was ended; empty while its person may sign in. */
    public Optional<Instant> ended() {
        return Optional.ofNullable(ended);
    }

    public void end() {
        ended = Instant.now().truncatedTo(ChronoUnit.MICROS);
        password = null;
        issuerGrant = null;
    }

    /** Who it is at which issuer; empty for whoever signs in by password. */
    public Optional<String> subject() {
        return Optional.ofNullable(subject);
    }

    /** When its issuer last said who it is. */
    public Optional<Instant> confirmed() {
        return Optional.ofNullable(confirmed);
    }

    /** What the issuer is asked with again, encrypted. */
    public Optional<byte[]> issuerGrant() {
        return Optional.ofNullable(issuerGrant);
    }

    /** The issuer has said who it is. @param grant null if the issuer cannot be asked again */
    public void confirm(String newSubject, Instant when, byte[] grant) {
        subject = newSubject;
        confirmed = when.truncatedTo(ChronoUnit.MICROS);
        issuerGrant = grant;
    }

    /** The issuer knows it no more: it signs in anew. */
    public void disown() {
        issuerGrant = null;
        confirmed = Instant.EPOCH;
    }
}
