package dev.oddbeacon.server.records;

import jakarta.persistence.CascadeType;
import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embedded;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OneToMany;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.hibernate.annotations.DynamicUpdate;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;

/** A registered repository, with what is indexed of it. */
@Entity
@DynamicUpdate // the index and the past write their own columns, at the same time
@Table(name = "repository")
public class RepositoryRecord {
    /**
     * The state of a repository. What is recorded is how its last job ended, waiting if none has; whether one waits or
     * runs now, the jobs say.
     */
    public enum State {
        WAITING,
        INDEXING,
        READY,
        FAILED
    }

    private static final int LONGEST_PROBLEM = 2_000;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;
    private String title;
    private String location;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private State state;

    private String problem;

    @SuppressWarnings("UnusedVariable") // a column, for people who look into the records
    private Instant created;

    @ElementCollection(fetch = FetchType.EAGER)
    @Fetch(FetchMode.SUBSELECT) // a join with the branches would give each label as often as there are branches
    @CollectionTable(name = "repository_label", joinColumns = @JoinColumn(name = "repository_id"))
    @OrderColumn(name = "position")
    @Column(name = "label")
    private List<String> labels = new ArrayList<>();

    @ElementCollection(fetch = FetchType.EAGER)
    @Fetch(FetchMode.SUBSELECT)
    @CollectionTable(name = "wanted_branch", joinColumns = @JoinColumn(name = "repository_id"))
    @OrderColumn(name = "position")
    @Column(name = "name")
    private List<String> wantedBranches = new ArrayList<>();

    @ElementCollection(fetch = FetchType.EAGER)
    @Fetch(FetchMode.SUBSELECT)
    @CollectionTable(name = "repository_viewer", joinColumns = @JoinColumn(name = "repository_id"))
    @Column(name = "viewer")
    private Set<String> viewers = new HashSet<>();

    private String roster;
    private Instant goneSince;
    private long mirrorBytes;
    private long pastBytes;

    @Column(columnDefinition = "char(40)")
    private String firstCommit;

    @Embedded
    private HistoryState history = HistoryState.unfinished();

    @OneToMany(mappedBy = "repository", fetch = FetchType.EAGER, cascade = CascadeType.ALL, orphanRemoval = true)
    @Fetch(FetchMode.SUBSELECT)
    private List<BranchRecord> branches = new ArrayList<>();

    protected RepositoryRecord() {}

    public RepositoryRecord(
            String name, String title, String location, List<String> wantedBranches, List<String> labels) {
        this.name = name;
        this.title = title;
        this.location = location;
        this.wantedBranches = new ArrayList<>(wantedBranches);
        this.labels = new ArrayList<>(labels);
        this.state = State.WAITING;
        this.created = Instant.now();
    }

    public Long id() {
        return id;
    }

    public String name() {
        return name;
    }

    public String title() {
        return title;
    }

    public String location() {
        return location;
    }

    public State state() {
        return state;
    }

    public Optional<String> problem() {
        return Optional.ofNullable(problem);
    }

    public List<String> labels() {
        return labels;
    }

    /** Who may see it, as the catalogue writes it. */
    public Set<String> viewers() {
        return viewers;
    }

    /** Empty for the branch that HEAD stands for. The first one is searched by default. */
    public List<String> wantedBranches() {
        return wantedBranches;
    }

    public List<BranchRecord> branches() {
        return branches;
    }

    public Optional<BranchRecord> branch(String branchName) {
        return branches.stream()
                .filter(branch -> branch.name().equals(branchName))
                .findFirst();
    }

    /** What is said of it, in place of what was said before. */
    public void describe(String newTitle, String newLocation, List<String> newBranches, List<String> newLabels) {
        title = newTitle;
        location = newLocation;
        wantedBranches.clear();
        wantedBranches.addAll(newBranches);
        labels.clear();
        labels.addAll(newLabels);
    }

    /** It is fetched from elsewhere from now on. */
    public void moved(String newLocation) {
        location = newLocation;
    }

    /** The roster that it came of. */
    public Optional<String> roster() {
        return Optional.ofNullable(roster);
    }

    public void roster(Optional<String> name) {
        roster = name.orElse(null);
    }

    /** Since when its roster does not list it any more. */
    public Optional<Instant> goneSince() {
        return Optional.ofNullable(goneSince);
    }

    public void goneSince(Optional<Instant> since) {
        goneSince = since.orElse(null);
    }

    /** What its mirror takes on the disk, in bytes. */
    public long mirrorBytes() {
        return mirrorBytes;
    }

    public void mirrorBytes(long bytes) {
        mirrorBytes = bytes;
    }

    /** What its past takes on the disk, in bytes. */
    public long pastBytes() {
        return pastBytes;
    }

    public void pastBytes(long bytes) {
        pastBytes = bytes;
    }

    /** The commit that its history began with, if that was asked. */
    public Optional<String> firstCommit() {
        return Optional.ofNullable(firstCommit);
    }

    public void firstCommit(String id) {
        firstCommit = id;
    }

    /** The state of its past in the index. */
    public HistoryState history() {
        return history == null ? HistoryState.unfinished() : history;
    }

    public void history(HistoryState state) {
        this.history = state;
    }

    public void state(State newState, Optional<String> newProblem) {
        this.state = newState;
        this.problem = newProblem
                .map(text -> text.substring(0, Math.min(text.length(), LONGEST_PROBLEM)))
                .orElse(null);
    }
}
