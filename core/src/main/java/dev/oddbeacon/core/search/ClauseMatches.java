package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.segment.SegmentReader;
import java.util.Optional;

/** The matches of one clause in one file after another, looked for only in the pieces that may have some. For one thread. */
final class ClauseMatches {
    private final TextMatcher.Finder finder;
    private final Effort effort;
    private SegmentReader segment;
    private int blob;
    private int[] pieces = {};
    private int next; // index into pieces of the one to look at when the current is through
    private int end;

    ClauseMatches(TextMatcher.Finder finder, SegmentReader any, Effort effort) {
        this.finder = finder;
        this.effort = effort;
        this.segment = any;
    }

    /** @param candidates pieces of the segment, ascending; empty if all of the blob is to be looked at */
    void begin(SegmentReader inSegment, int blobNumber, Optional<int[]> candidates) {
        segment = inSegment;
        blob = blobNumber;
        if (candidates.isEmpty()) {
            pieces = new int[0];
            next = 0;
            end = 0;
            look(segment.start(blob), segment.end(blob));
            return;
        }
        pieces = candidates.get();
        next = SortedInts.firstFrom(pieces, segment.firstPiece(blob));
        end = SortedInts.firstFrom(pieces, segment.firstPiece(blob + 1));
        look(segment.start(blob), segment.start(blob));
    }

    private void look(long from, long to) {
        effort.bytesVerified.addAndGet(to - from);
        finder.begin(segment.content(), segment.start(blob), segment.end(blob), from, to);
    }

    boolean next() {
        while (!finder.next()) {
            if (next >= end) {
                return false;
            }
            int piece = pieces[next++];
            look(segment.pieceStart(piece), segment.pieceEnd(piece));
        }
        return true;
    }

    /** Lines with a match, from the beginning of the file to its end; only of clauses that stay on lines. */
    int countLines() {
        int count = finder.countLines();
        while (next < end) {
            int piece = pieces[next++];
            look(segment.pieceStart(piece), segment.pieceEnd(piece));
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
