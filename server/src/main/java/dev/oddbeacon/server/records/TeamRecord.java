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
import java.util.HashSet;
import java.util.Set;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;

/** A named group of accounts. */
@Entity
@Table(name = "team")
public class TeamRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;
    private String title;

    @ElementCollection(fetch = FetchType.EAGER)
    @Fetch(FetchMode.SUBSELECT)
    @CollectionTable(name = "team_member", joinColumns = @JoinColumn(name = "team_id"))
    @Column(name = "account")
    private Set<String> members = new HashSet<>();

    protected TeamRecord() {}

    public TeamRecord(String name, String title) {
        this.name = name;
        this.title = title;
    }

    public String name() {
        return name;
    }

    public String title() {
        return title;
    }

    /** Names of accounts. */
    public Set<String> members() {
        return members;
    }
}
