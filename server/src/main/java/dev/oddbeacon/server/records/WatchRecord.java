package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** Who is told when something new matches a saved search, and how. */
@Entity
@Table(name = "watch")
public class WatchRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String owner;
    private long searchId;
    private boolean went;

    @Column(columnDefinition = "varchar(8)")
    private String gathered;

    private Instant mutedUntil;
    private String webhook = "";
    private byte[] secret;
    private String mail = "";

    @Column(columnDefinition = "varchar(64)")
    private String feed;

    @SuppressWarnings("UnusedVariable") // a column
    private Instant made;

    private long told;

    protected WatchRecord() {}

    /**
     * @param owner an account; empty where nobody signs in
     * @param told the last notice that is not told any more
     */
    public WatchRecord(String owner, long searchId, Instant made, long told) {
        this.owner = owner;
        this.searchId = searchId;
        this.made = made.truncatedTo(ChronoUnit.MICROS);
        this.told = told;
    }

    public long id() {
        return id;
    }

    public String owner() {
        return owner;
    }

    public long searchId() {
        return searchId;
    }

    public boolean went() {
        return went;
    }

    public String gathered() {
        return gathered;
    }

    public Optional<Instant> mutedUntil() {
        return Optional.ofNullable(mutedUntil);
    }

    /** The address that messages are sent to. */
    public Optional<String> webhook() {
        return Optional.of(webhook).filter(address -> !address.isEmpty());
    }

    /** The address that mails are sent to. */
    public Optional<String> mail() {
        return Optional.of(mail).filter(address -> !address.isEmpty());
    }

    /** @param address empty for none */
    public void mail(String address) {
        mail = address;
    }

    /** What messages are signed with, encrypted; empty without a webhook. */
    public byte[] secret() {
        return secret == null ? new byte[0] : secret.clone();
    }

    /** The last notice of which a message was made. */
    public long told() {
        return told;
    }

    public void told(long notice) {
        told = notice;
    }

    public void wish(boolean alsoWent, String howOften, Optional<Instant> notBefore) {
        went = alsoWent;
        gathered = howOften;
        mutedUntil = notBefore.map(when -> when.truncatedTo(ChronoUnit.MICROS)).orElse(null);
    }

    /** @param address empty for none */
    public void webhook(String address, byte[] newSecret) {
        webhook = address;
        secret = newSecret.length == 0 ? null : newSecret.clone();
    }

    /** @param hash of the secret part of the feed's address */
    public void feed(String hash) {
        feed = hash;
    }

    public boolean hasFeed() {
        return feed != null;
    }
}
