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
    }
}
