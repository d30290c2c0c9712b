package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** A part of what follows a person from browser to browser. */
@Entity
@Table(name = "desk")
public class DeskRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    @SuppressWarnings("UnusedVariable") // a column
    private Long id;

    @SuppressWarnings("UnusedVariable") // it is looked for by this column
    private String account;

    private String part;

    @Column(columnDefinition = "mediumblob")
    private byte[] content;

    protected DeskRecord() {}

    public DeskRecord(String account, String part) {
        this.account = account;
        this.part = part;
    }

    public String part() {
        return part;
    }

    /** Encrypted. */
    public byte[] content() {
        return content;
    }

    public void content(byte[] encrypted) {
        content = encrypted;
    }
}
