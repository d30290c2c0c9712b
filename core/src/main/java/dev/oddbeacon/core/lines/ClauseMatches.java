package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.search.BlobParts;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.search.SortedInts;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/**
 * The matches of one clause in one file after another, looked for only in the pieces that may have some. For one
 * thread.
 */
final class ClauseMatches {
    /** Pieces that touch are looked at together, but not so many that the search could not be stopped in between. */
    private static final int MOST_TOGETHER = 16;

    private static final int[] ALL = new int[0];

    private final TextMatcher.Finder finder;
    private final boolean staysOnLine;
    private final BooleanSupplier stop;
    private final Effort effort;
    private final BlobParts parts;
    private SegmentReader segment;
    private int blob;
    private int[] pieces = ALL;
    private int
            next; // index into pieces of the one to look at when the current is through; the piece itself if all are
    private int end;

    ClauseMatches(View view, TextMatcher clause, SegmentReader any, BooleanSupplier stop, Effort effort) {
        this.parts = new BlobParts(view);
        this.finder = clause.finder(stop);
        this.staysOnLine = clause.staysOnLine();
        this.segment = any;
        this.stop = stop;
        this.effort = effort;
    }

    /** @param candidates pieces of the segment, ascending; empty if all of the blob is to be looked at */
    void begin(SegmentReader inSegment, int blobNumber, int branchNumber, int file, Optional<int[]> candidates) {
        segment = inSegment;
        blob = blobNumber;
        parts.begin(segment, blob, branchNumber, file);
        finder.enter(parts);
        if (candidates.isPresent()) {
            pieces = candidates.get();
            next = SortedInts.firstFrom(pieces, segment.firstPiece(blob));
            end = SortedInts.firstFrom(pieces, segment.firstPiece(blob + 1));
        } else {
            pieces = ALL;
            next = segment.firstPiece(blob);
            end = segment.firstPiece(blob + 1);
        }
        if (staysOnLine) {
            look(segment.start(blob), segment.start(blob));
        } else {
            next = end;
            look(segment.start(blob), segment.end(blob));
        }
    }

    private void look(long from, long to) {
        effort.bytesVerified.addAndGet(to - from);
        finder.begin(segment.content(), segment.start(blob), segment.end(blob), from, to);
    }

    private void lookAtNext() {
        if (stop.getAsBoolean()) {
            throw new ScanStoppedException();
        }
        int first = piece(next);
        int last = first;
        while (++next < end && piece(next) == last + 1 && last - first < MOST_TOGETHER) {
            last++;
        }
        look(segment.pieceStart(first), segment.pieceEnd(last));
    }

    private int piece(int index) {
        return pieces == ALL ? index : pieces[index];
    }

    boolean next() {
        while (!finder.next()) {
            if (next >= end) {
                return false;
            }
            lookAtNext();
        }
        return true;
    }

    /** Lines with a match, from the beginning of the file to its end; only of clauses that stay on lines. */
    int countLines() {
        int count = finder.countLines();
        while (next < end) {
            lookAtNext();
            count += finder.countLines();
        }
        return count;
    }

    void skipLine() {
        finder.skipLine();
    }

    long start() {
        return finder.start();
    }

    long end() {
        return finder.end();
    }
}
