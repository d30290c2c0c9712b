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
    private int historyLosses;

    protected HistoryState() {}

    /** Not read yet. */
    public static HistoryState unfinished() {
        return new HistoryState();
    }

    /** Some or all of it is not in the index any more. */
    public HistoryState lost() {
        HistoryState lost = new HistoryState();
        lost.historyLosses = historyLosses + 1;
        return lost;
    }

    /**
     * It was read.
     *
     * @param complete whether all that is wanted was read
     * @param oldest when the first commit was made
     * @param cut commits that have a parent which is missing
     * @param withoutLines commits of which the changed lines are left out
     */
    public HistoryState read(
            boolean complete,
            int commits,
            Optional<Instant> oldest,
            int cut,
            int withoutLines,
            Optional<String> problem) {
        return new HistoryState(complete, commits, oldest, cut, withoutLines, problem, historyLosses);
    }

    private HistoryState(
            boolean complete,
            int commits,
            Optional<Instant> oldest,
            int cut,
            int withoutLines,
            Optional<String> problem,
            int losses) {
        this.historyComplete = complete;
        this.historyCommits = commits;
        this.historyOldest = oldest.orElse(null);
        this.historyCut = cut;
        this.historyWithoutLines = withoutLines;
        this.historyProblem = problem.map(text -> text.substring(0, Math.min(text.length(), LONGEST_PROBLEM)))
                .orElse(null);
        this.historyLosses = losses;
    }

    /** The same, but more is being read. */
    public HistoryState begun() {
        return new HistoryState(
                false, historyCommits, oldest(), historyCut, historyWithoutLines, problem(), historyLosses);
    }

    /** How often some of it was lost. */
    public int losses() {
        return historyLosses;
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
