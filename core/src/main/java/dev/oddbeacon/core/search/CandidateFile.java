package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.Plan;
import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Lines;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * A file of the scope that may match, and the pieces of its blob to look at.
 *
 * @param place {@code rank << 32 | file}, see {@link View}
 * @param pieces numbers of pieces, ascending, of which those from {@code fromPiece} to before {@code toPiece} are
 *        this blob's; empty if all of the blob is to be looked at
 */
record CandidateFile(long place, SegmentReader segment, int blob, int[] pieces, int fromPiece, int toPiece) {
    private static final int[] ALL = {};

    int rank() {
        return (int) (place >>> 32);
    }

    int file() {
        return (int) place;
    }

    /** All candidates of a scope, in the order of places. */
    static List<CandidateFile> of(View view, Scope.Selection scope, TextMatcher matcher) {
        List<CandidateFile> files = new ArrayList<>();
        for (SegmentReader segment : view.segments()) {
            if (!view.isUsed(segment)) {
                continue;
            }
            Optional<int[]> pieces = Candidates.pieces(segment, matcher.plan());
            if (pieces.isEmpty()) {
                for (int blob = 0; blob < segment.blobCount(); blob++) {
                    addPlaces(view, scope, segment, blob, ALL, 0, 0, files);
                }
                continue;
            }
            int[] found = pieces.get();
            for (int i = 0; i < found.length; ) {
                int blob = segment.blobOf(found[i]);
                int end = i + 1;
                int next = segment.firstPiece(blob + 1);
                while (end < found.length && found[end] < next) {
                    end++;
                }
                if (matcher.staysOnLine()) {
                    addPlaces(view, scope, segment, blob, found, i, end, files);
                } else {
                    addPlaces(view, scope, segment, blob, ALL, 0, 0, files);
                }
                i = end;
            }
        }
        files.sort(Comparator.comparingLong(CandidateFile::place));
        return files;
    }

    private static void addPlaces(View view, Scope.Selection scope, SegmentReader segment, int blob, int[] pieces, int from, int to,
            List<CandidateFile> files) {
        view.forEachPlace(segment, blob, (rank, file) -> {
            if (scope.holdsBranch(rank) && scope.holdsFile(rank, file)) {
                files.add(new CandidateFile((long) rank << 32 | file, segment, blob, pieces, from, to));
            }
        });
    }

    /** What is told each match. */
    interface MatchConsumer {
        /** @return whether to go on */
        boolean match(TextMatcher.Finder finder);
    }

    /** Goes through the matches of the file from the first to the last. */
    void forEachMatch(TextMatcher.Finder finder, MatchConsumer consumer) {
        long low = segment.start(blob);
        long high = segment.end(blob);
        if (pieces.length == 0) {
            finder.begin(segment.content(), low, high, low, high);
            while (finder.next()) {
                if (!consumer.match(finder)) {
                    return;
                }
            }
            return;
        }
        for (int i = fromPiece; i < toPiece; i++) {
            finder.begin(segment.content(), low, high, segment.pieceStart(pieces[i]), segment.pieceEnd(pieces[i]));
            while (finder.next()) {
                if (!consumer.match(finder)) {
                    return;
                }
            }
        }
    }

    /** Lines with a match, or -1 if the budget ended before all were counted. */
    int countHits(TextMatcher matcher, TextMatcher.Finder finder, Budget budget) {
        int[] count = {0};
        long[] lastFeed = {-1}; // of the last line that was counted
        boolean[] cut = {false};
        forEachMatch(finder, match -> {
            if (matcher.staysOnLine()) {
                count[0]++;
                match.skipLine();
            } else {
                HitLines lines = HitLines.of(segment, blob, match);
                count[0] += lines.count() - (lines.start() <= lastFeed[0] ? 1 : 0);
                lastFeed[0] = lines.end();
            }
            cut[0] = (count[0] & 0x3FF) == 0 && budget.isOver();
            return !cut[0];
        });
        return cut[0] ? -1 : count[0];
    }

    /**
     * The lines that a match touches.
     *
     * @param start of the first
     * @param end of the last: its line feed, or the end of the text
     */
    record HitLines(long start, long end, int count) {
        static HitLines of(SegmentReader segment, int blob, TextMatcher.Finder match) {
            var content = segment.content();
            long start = Lines.start(content, match.start(), segment.start(blob));
            long last = Math.max(match.start(), match.end() - 1);
            long end = Lines.end(content, last, segment.end(blob));
            return new HitLines(start, end, Lines.feeds(content, match.start(), last) + 1);
        }
    }
}
