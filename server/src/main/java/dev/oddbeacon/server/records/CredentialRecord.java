package dev.oddbeacon.server.records;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
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

/** What a host is shown to let the service in. */
@Entity
@Table(name = "credential")
public class CredentialRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String host;
    private String kind;
    private String userName;

    @Column(columnDefinition = "varbinary(24000)")
    private byte[] secret;

    private String fingerprint;
    private String givenBy;
    private Instant given;

    @ElementCollection(fetch = FetchType.EAGER)
    @Fetch(FetchMode.SUBSELECT)
    @CollectionTable(name = "credential_host_key", joinColumns = @JoinColumn(name = "credential_id"))
    @Column(name = "host_key")
    private Set<String> hostKeys = new HashSet<>();

    protected CredentialRecord() {}

    /** @param host with its port @param kind {@code ssh-key} or {@code token} */
    public CredentialRecord(String host, String kind) {
        this.host = host;
        this.kind = kind;
    }

    /** Takes the place of what was given before. @param encrypted of which nothing can be read here */
    public void give(
            String user, byte[] encrypted, String newFingerprint, Collection<String> keysOfHost, String account) {
        userName = user;
        secret = encrypted;
        fingerprint = newFingerprint;
        hostKeys.clear();
        hostKeys.addAll(keysOfHost);
        givenBy = account;
        given = Instant.now().truncatedTo(ChronoUnit.MICROS);
    }

    public Long id() {
        return id;
    }

    public String host() {
        return host;
    }

    public String kind() {
        return kind;
    }

    public String userName() {
        return userName;
    }

    /** Encrypted. */
    public byte[] secret() {
        return secret;
    }

    /** Of a key for ssh; empty for a token. */
    public String fingerprint() {
        return fingerprint;
    }

    /** The account; empty where nobody signs in. */
    public Optional<String> givenBy() {
        return Optional.ofNullable(givenBy);
    }

    public Instant given() {
        return given;
    }

    /** Type and key in Base64, by which the host is known. */
    public Set<String> hostKeys() {
        return hostKeys;
    }
}
