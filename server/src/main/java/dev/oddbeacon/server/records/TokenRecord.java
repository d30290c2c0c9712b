package dev.oddbeacon.server.records;

import dev.oddbeacon.api.Role;
import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;

/** What a program signs in with, for an account. */
@Entity
@Table(name = "token")
public class TokenRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String account;
    private String name;

    @Column(columnDefinition = "char(64)")
    private String hash;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private Role role;

    private Instant created;
    private Instant ends;
    private Instant lastUsed;

    @ElementCollection(fetch = FetchType.EAGER)
    @Fetch(FetchMode.SUBSELECT)
    @CollectionTable(name = "token_repository", joinColumns = @JoinColumn(name = "token_id"))
    @Column(name = "repository")
    private Set<String> repositories = new HashSet<>();

    protected TokenRecord() {}

    /** @param hash of the token, SHA-256 in hexadecimal digits @param repositories by name; empty for all */
    public TokenRecord(
            String account, String name, String hash, Role role, Collection<String> repositories, Instant ends) {
        this.repositories.addAll(repositories);
        this.account = account;
        this.name = name;
        this.hash = hash;
        this.role = role;
        this.created = Instant.now().truncatedTo(ChronoUnit.MICROS);
        this.ends = ends;
    }

    public Long id() {
        return id;
    }

    public String account() {
        return account;
    }

    public String name() {
        return name;
    }

    public String hash() {
        return hash;
    }

    public Role role() {
        return role;
    }

    /** The only ones that it sees; empty for all that its account sees. */
    public Set<String> repositories() {
        return repositories;
    }

    public Instant created() {
        return created;
    }

    public Instant ends() {
        return ends;
    }

    public Optional<Instant> lastUsed() {
        return Optional.ofNullable(lastUsed);
    }

    public void used(Instant when) {
        lastUsed = when;
    }
}
