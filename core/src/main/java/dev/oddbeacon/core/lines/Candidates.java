package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery.Node;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.search.PlannedPieces;
import dev.oddbeacon.core.search.SortedInts;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * The files that may match, in the order of places, and which of their pieces each clause needs to look at.
 *
 * @param places ascending, see {@link View}
 * @param segments by number in the view
 */
record Candidates(long[] places, List<InSegment> segments) {
    /** When candidates are this much rarer than files, looking up their places beats looking at all files. */
    private static final int RARE = 16;

    private static final int[] NONE = {};

    /**
     * Candidates of one segment.
     *
     * @param blobs ascending; empty if any blob may match
     * @param pieces by clause, ascending; empty if the clause must look at all of a blob
     */
    record InSegment(SegmentReader segment, Optional<int[]> blobs, List<Optional<int[]>> pieces) {
        static InSegment of(SegmentReader segment, CompiledQuery query, Effort effort) {
            List<Optional<int[]>> found = new ArrayList<>();
            List<Optional<int[]>> pieces = new ArrayList<>();
            for (TextMatcher clause : query.clauses()) {
                Optional<int[]> candidates =
                        PlannedPieces.of(segment, effort, !clause.staysOnLine()).of(clause.plan());
                found.add(candidates);
                pieces.add(clause.staysOnLine() ? candidates : Optional.empty());
            }
            return new InSegment(segment, blobs(segment, query.root(), found), pieces);
        }

        private static Optional<int[]> blobs(SegmentReader segment, Node node, List<Optional<int[]>> pieces) {
            return switch (node) {
                case Node.And and -> {
                    Optional<int[]> result = Optional.empty();
                    for (Node part : and.parts()) {
                        Optional<int[]> blobs = blobs(segment, part, pieces);
                        if (blobs.isPresent()) {
                            result = Optional.of(
                                    result.isEmpty()
                                            ? blobs.get()
                                            : SortedInts.intersection(result.get(), blobs.get()));
                        }
                    }
                    yield result;
                }
                case Node.Or or -> {
                    int[] result = NONE;
                    for (Node part : or.parts()) {
                        Optional<int[]> blobs = blobs(segment, part, pieces);
                        if (blobs.isEmpty()) {
                            yield Optional.empty();
                        }
                        result = SortedInts.union(result, blobs.get());
                    }
                    yield Optional.of(result);
                }
                case Node.Clause clause ->
                    clause.wanted()
                            ? pieces.get(clause.number()).map(numbers -> SortedInts.mapped(numbers, segment::blobOf))
                            : Optional.empty();
                case Node.Condition _, Node.Holds _, Node.Found _ -> Optional.empty();
                case Node.Everything everything -> everything.wanted() ? Optional.empty() : Optional.of(NONE);
            };
        }
    }

    /** The candidates of one segment: the part that several threads may share. */
    static InSegment inSegment(View view, SegmentReader segment, CompiledQuery query, Effort effort) {
        return view.isUsed(segment)
                ? InSegment.of(segment, query, effort)
                : new InSegment(segment, Optional.of(NONE), List.of());
    }

    /** @param segments the candidates of each segment, in the order of the view */
    static Candidates of(View view, Limits limits, List<InSegment> segments) {
        long files = limits.fileCount();
        long found = segments.stream()
                .mapToLong(inSegment ->
                        inSegment.blobs.map(blobs -> (long) blobs.length).orElse((long) inSegment.segment.blobCount()))
                .sum();
        return new Candidates(
                found < files / RARE ? lookedUp(view, limits, segments, (int) found) : filtered(view, limits, segments),
                segments);
    }

    private static long[] lookedUp(View view, Limits limits, List<InSegment> segments, int expected) {
        Places places = new Places(expected);
        for (InSegment inSegment : segments) {
            SegmentReader segment = inSegment.segment;
            int count = inSegment.blobs.map(blobs -> blobs.length).orElse(segment.blobCount());
            for (int i = 0; i < count; i++) {
                view.forEachPlace(
                        segment, inSegment.blobs.isPresent() ? inSegment.blobs.get()[i] : i, (branchNumber, file) -> {
                            if (limits.reaches(branchNumber, file)) {
                                places.add(branchNumber, file);
                            }
                        });
            }
        }
        long[] result = places.toArray();
        Arrays.sort(result);
        return result;
    }

    private static long[] filtered(View view, Limits limits, List<InSegment> segments) {
        boolean[][] wanted = new boolean[segments.size()][];
        for (int i = 0; i < wanted.length; i++) {
            InSegment inSegment = segments.get(i);
            boolean[] blobs = wanted[i] = new boolean[inSegment.segment.blobCount()];
            if (inSegment.blobs.isEmpty()) {
                Arrays.fill(blobs, true);
            } else {
                for (int blob : inSegment.blobs.get()) {
                    blobs[blob] = true;
                }
            }
        }
        Places places = new Places(1_024);
        for (int branchNumber = 0; branchNumber < view.branches().size(); branchNumber++) {
            int of = branchNumber;
            view.forEachText(branchNumber, limits.files(branchNumber), (file, segment, blob) -> {
                if (wanted[segment][blob]) {
                    places.add(of, file);
                }
            });
        }
        return places.toArray();
    }

    /** A growing list of places. */
    private static final class Places {
        private long[] places;
        private int size;

        Places(int expected) {
            places = new long[Math.max(16, expected)];
        }

        void add(int branchNumber, int file) {
            if (size == places.length) {
                places = Arrays.copyOf(places, size * 2);
            }
            places[size++] = (long) branchNumber << 32 | file;
        }

        long[] toArray() {
            return Arrays.copyOf(places, size);
        }
    }
}
