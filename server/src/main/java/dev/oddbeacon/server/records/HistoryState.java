package dev.oddbeacon.server.records;

import jakarta.persistence.Embeddable;
import java.time.Instant;
import java.util.Optional;

/** The state of a repository's past in the index. */
@Embeddable
public class HistoryState {
    private static final int LONGEST_PROBLEM = 2_000;

    private boolean historyComplete;
    private int historyCommits;
    private Instant historyOldest;
    private int historyCut;
    private int historyWithoutLines;
    private String historyProblem;

    protected HistoryState() {}

    /** Not read yet, or not to the end. */
    public static HistoryState unfinished() {
        return new HistoryState();
    }

    /**
     * @param complete whether all that is wanted was read
     * @param oldest when the first commit was made
     * @param cut commits that have a parent which is missing
     * @param withoutLines commits of which the changed lines are left out
     */
    public HistoryState(
            boolean complete,
            int commits,
            Optional<Instant> oldest,
            int cut,
            int withoutLines,
            Optional<String> problem) {
        this.historyComplete = complete;
        this.historyCommits = commits;
        this.historyOldest = oldest.orElse(null);
        this.historyCut = cut;
        this.historyWithoutLines = withoutLines;
        this.historyProblem = problem.map(text -> text.substring(0, Math.min(text.length(), LONGEST_PROBLEM)))
                .orElse(null);
    }

    /** The same, but more is being read. */
    public HistoryState begun() {
        return new HistoryState(false, historyCommits, oldest(), historyCut, historyWithoutLines, problem());
    }

    public boolean complete() {
        return historyComplete;
    }

    public int commits() {
        return historyCommits;
    }

    public Optional<Instant> oldest() {
        return Optional.ofNullable(historyOldest);
    }

    public int cut() {
        return historyCut;
    }

    public int withoutLines() {
        return historyWithoutLines;
    }

    public Optional<String> problem() {
        return Optional.ofNullable(historyProblem);
    }
}
