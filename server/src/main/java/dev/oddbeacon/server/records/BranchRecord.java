package dev.oddbeacon.server.records;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.snapshot.Branch;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.Set;

/** A branch or tag of a repository as it is indexed. */
@Entity
@Table(name = "branch")
public class BranchRecord {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne
    @JoinColumn(name = "repository_id")
    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private RepositoryRecord repository;

    private String name;
    private boolean searchedByDefault;

    @Column(columnDefinition = "char(40)")
    private String commitId;

    private Instant committed;
    private Instant indexed;
    private int files;
    private long lineCount;
    private long byteCount;
    private int skipped;
    private long unreadBytes;
    private String snapshotFile;

    protected BranchRecord() {}

    public BranchRecord(RepositoryRecord repository, String name) {
        this.repository = repository;
        this.name = name;
    }

    public String name() {
        return name;
    }

    public boolean searchedByDefault() {
        return searchedByDefault;
    }

    public void searchedByDefault(boolean value) {
        searchedByDefault = value;
    }

    public String commitId() {
        return commitId;
    }

    public Instant committed() {
        return committed;
    }

    public Instant indexed() {
        return indexed;
    }

    public int files() {
        return files;
    }

    public long lineCount() {
        return lineCount;
    }

    public long byteCount() {
        return byteCount;
    }

    public int skipped() {
        return skipped;
    }

    /** Of files that are not searched yet, while it is read for the first time. */
    public long unreadBytes() {
        return unreadBytes;
    }

    /** Its name in the index folder. */
    public String snapshotFile() {
        return snapshotFile;
    }

    /** The branch as the index knows it. */
    public Branch asBranch(RepositoryRecord of) {
        return new Branch(of.name(), Set.copyOf(of.labels()), name, commitId, committed, searchedByDefault);
    }

    /** The result of an ingest. */
    public void indexed(String commit, Instant when, Ingest.Ingested result) {
        this.commitId = commit;
        this.committed = when;
        this.indexed = Instant.now();
        this.files = result.files();
        this.lineCount = result.lines();
        this.byteCount = result.bytes();
        this.skipped = result.skipped();
        this.unreadBytes = result.unread();
        this.snapshotFile = result.snapshot().getFileName().toString();
    }
}
