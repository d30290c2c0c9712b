package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery.Node;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.search.BlobParts;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * Decides the query for one file after another, by its text. Hits are the lines on which wanted clauses of satisfied
 * branches match: of {@code a or (b and c)}, in a file without c, the lines of a. For one thread.
 */
final class Verifier {
    /** The value of {@link #hits} for a file that does not match. */
    static final int NOT_FOUND = -1;

    private final View view;
    private final Limits.Files limits;
    private final CompiledQuery query;
    private final Candidates candidates;
    private final BooleanSupplier stop;
    private final Effort effort;
    private final List<ClauseMatches> matches = new ArrayList<>();
    private final boolean[] shown; // clauses whose lines are hits in the current file
    private final boolean isOneClause;
    private final boolean showsLines;
    private Candidates.InSegment inSegment;
    private SegmentReader segment;
    private int blob;
    private int branchNumber;
    private int file;

    /**
     * @param candidates of a view that has segments
     * @param stop asked now and then
     */
    Verifier(
            View view, Limits limits, CompiledQuery query, Candidates candidates, BooleanSupplier stop, Effort effort) {
        this.view = view;
        this.limits = limits.files();
        this.query = query;
        this.candidates = candidates;
        this.stop = stop;
        this.effort = effort;
        this.inSegment = candidates.segments().getFirst();
        this.segment = inSegment.segment();
        query.clauses().forEach(clause -> matches.add(new ClauseMatches(view, clause, segment, stop, effort)));
        this.shown = new boolean[matches.size()];
        this.showsLines = query.showsLines();
        this.isOneClause = shown.length == 1 && showsLines && !hasOr(query.root());
    }

    private static boolean hasOr(Node node) {
        return node instanceof Node.Or
                || node instanceof Node.And and && and.parts().stream().anyMatch(Verifier::hasOr);
    }

    /**
     * Goes to a file, and counts its hits.
     *
     * @return {@link #NOT_FOUND}, or the hits: 0 for a file that is found without any line
     * @throws dev.oddbeacon.core.text.ScanStoppedException if the budget ended before all were counted
     */
    int hits(long place) {
        if (!open(place)) {
            return NOT_FOUND;
        }
        if (isOneClause) {
            shown[0] = true;
            int hits = countLines();
            return hits == 0 ? NOT_FOUND : hits;
        }
        Arrays.fill(shown, false);
        if (!holds(query.root())) {
            return NOT_FOUND;
        }
        return showsLines ? countLines() : 0;
    }

    /** Goes to a file. @return whether limits keep it in */
    private boolean open(long place) {
        branchNumber = (int) (place >>> 32);
        file = (int) place;
        if (!limits.hold(branchNumber, file)) {
            return false;
        }
        inSegment = candidates.segments().get(view.segmentNumber(branchNumber, file));
        segment = inSegment.segment();
        blob = view.blob(branchNumber, file);
        effort.filesVerified.incrementAndGet();
        return true;
    }

    /** Whether a part of the query holds for the file; notes the clauses whose lines are hits then. */
    private boolean holds(Node node) {
        switch (node) {
            case Node.And and -> {
                boolean[] before = shown.clone();
                for (Node part : and.parts()) {
                    if (!holds(part)) {
                        System.arraycopy(before, 0, shown, 0, shown.length);
                        return false;
                    }
                }
                return true;
            }
            case Node.Or or -> {
                boolean any = false;
                for (Node part : or.parts()) {
                    any |= holds(part);
                }
                return any;
            }
            case Node.Clause clause -> {
                begin(clause.number());
                boolean matches = this.matches.get(clause.number()).next();
                shown[clause.number()] |= matches && clause.wanted();
                return matches == clause.wanted();
            }
            case Node.Condition condition -> {
                return limits.holds(condition);
            }
            case Node.Found found -> {
                return limits.holds(found);
            }
            case Node.Holds holds -> throw new IllegalStateException("not settled: " + holds);
            case Node.Everything everything -> {
                return everything.wanted();
            }
        }
    }

    private void begin(int clause) {
        matches.get(clause)
                .begin(segment, blob, branchNumber, file, inSegment.pieces().get(clause));
    }

    private int countLines() {
        FileMatches all = matches();
        if (all.isSimple()) {
            return all.countLines();
        }
        int count = 0;
        long lastFeed = -1; // of the last line that was counted
        while (all.next()) {
            long last = Math.max(all.start(), all.end() - 1);
            if (last > lastFeed) {
                count += Lines.feeds(segment.content(), Math.max(all.start(), lastFeed + 1), last) + 1;
                lastFeed = Lines.end(segment.content(), last, segment.end(blob));
            }
            if (all.staysOnLine()) {
                all.skipLine();
            }
            if ((count & 0x3FF) == 0x3FF && stop.getAsBoolean()) {
                throw new ScanStoppedException();
            }
        }
        return count;
    }

    /**
     * The number, from 0, of the first hit in the current file with the name of a declaration in it.
     *
     * @param most matches to look at
     * @return the first hit if none of them is a name of a declaration
     */
    int hitThatDeclares(int most) {
        if (segment.language(blob).isEmpty()) {
            return 0;
        }
        BlobParts parts = new BlobParts(view);
        parts.begin(segment, blob, branchNumber, file);
        FileMatches all = matches();
        int hit = -1;
        long lastFeed = -1;
        for (int i = 0; i < most && all.next(); i++) {
            if (all.start() > lastFeed) {
                hit++;
                lastFeed = Lines.end(segment.content(), Math.max(all.start(), all.end() - 1), segment.end(blob));
            }
            if (parts.isDeclared(all.start(), all.end())) {
                return hit;
            }
        }
        return 0;
    }

    /** Goes to a file that was found before. */
    void reopen(long place) {
        if (isOneClause) {
            open(place);
            shown[0] = true;
        } else {
            hits(place);
        }
    }

    /** The matches whose lines are hits, in the file that {@link #hits} looked at last, from the first. */
    FileMatches matches() {
        List<ClauseMatches> wanted = new ArrayList<>();
        boolean staysOnLine = true;
        for (int clause = 0; clause < shown.length; clause++) {
            if (shown[clause]) {
                begin(clause);
                wanted.add(matches.get(clause));
                TextMatcher matcher = query.clauses().get(clause);
                staysOnLine &= matcher.staysOnLine();
            }
        }
        return new FileMatches(wanted, staysOnLine);
    }

    SegmentReader segment() {
        return segment;
    }

    int blob() {
        return blob;
    }
}
