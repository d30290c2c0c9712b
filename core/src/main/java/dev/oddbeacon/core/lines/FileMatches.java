package dev.oddbeacon.core.lines;

import java.util.List;

/**
 * The matches of several clauses in one file, merged in the order of their starts. They may overlap. For one thread.
 */
final class FileMatches {
    private final List<ClauseMatches> clauses;
    private final boolean[] isThrough;
    private final boolean staysOnLine;
    private int current = -1;

    FileMatches(List<ClauseMatches> clauses, boolean staysOnLine) {
        this.clauses = clauses;
        this.staysOnLine = staysOnLine;
        this.isThrough = new boolean[clauses.size()];
    }

    boolean next() {
        if (clauses.size() == 1) {
            current = 0;
            return clauses.getFirst().next();
        }
        if (current < 0) {
            for (int i = 0; i < isThrough.length; i++) {
                isThrough[i] = !clauses.get(i).next();
            }
        } else {
            isThrough[current] = !clauses.get(current).next();
        }
        current = -1;
        for (int i = 0; i < isThrough.length; i++) {
            if (!isThrough[i]
                    && (current < 0
                            || clauses.get(i).start() < clauses.get(current).start())) {
                current = i;
            }
        }
        return current >= 0;
    }

    /** Whether lines can be counted by {@link #countLines}: matches are of one clause and stay on lines. */
    boolean isSimple() {
        return clauses.size() == 1 && staysOnLine;
    }

    /** Lines with a match. */
    int countLines() {
        return clauses.getFirst().countLines();
    }

    /** Whether no match holds a line feed. */
    boolean staysOnLine() {
        return staysOnLine;
    }

    /** The current clause goes on behind the line on which the match ends. */
    void skipLine() {
        clauses.get(current).skipLine();
    }

    long start() {
        return clauses.get(current).start();
    }

    long end() {
        return clauses.get(current).end();
    }
}
