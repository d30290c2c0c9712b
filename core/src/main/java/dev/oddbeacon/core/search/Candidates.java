package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.Plan;
import dev.oddbeacon.core.segment.Grams;
import dev.oddbeacon.core.segment.SegmentReader;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** From a plan to the pieces of a segment that may match: the postings of the plan's grams, intersected and united. */
final class Candidates {
    /** Where this few pieces are left, verifying them is cheaper than reading another list. */
    private static final int FEW = 8;
    /** A list of more bytes than this for each piece that is left costs more to read than it saves. */
    private static final int WORTH_READING = 2_000;

    private Candidates() {}

    /** The pieces, ascending; empty stands for all of them. */
    static Optional<int[]> pieces(SegmentReader segment, Plan plan) {
        return switch (plan) {
            case Plan.Anything _ -> Optional.empty();
            case Plan.Holds holds -> holding(segment, holds.folded());
            case Plan.AllOf all -> {
                Optional<int[]> result = Optional.empty();
                for (Plan part : all.parts()) {
                    Optional<int[]> pieces = pieces(segment, part);
                    if (pieces.isPresent()) {
                        result = Optional.of(result.isEmpty() ? pieces.get() : intersection(result.get(), pieces.get()));
                    }
                    if (result.isPresent() && result.get().length == 0) {
                        break;
                    }
                }
                yield result;
            }
            case Plan.AnyOf any -> {
                int[] result = {};
                for (Plan part : any.parts()) {
                    Optional<int[]> pieces = pieces(segment, part);
                    if (pieces.isEmpty()) {
                        yield Optional.empty();
                    }
                    result = union(result, pieces.get());
                }
                yield Optional.of(result);
            }
        };
    }

    private static Optional<int[]> holding(SegmentReader segment, String folded) {
        int[] grams = Grams.of(folded.getBytes(StandardCharsets.UTF_8));
        if (grams.length == 0) {
            return Optional.empty();
        }
        List<Integer> lists = Arrays.stream(grams).map(segment::list).boxed()
                .sorted(Comparator.comparingInt(list -> list < 0 ? -1 : segment.listBytes(list))).toList();
        if (lists.getFirst() < 0) {
            return Optional.of(new int[0]);
        }
        int[] result = segment.pieces(lists.getFirst());
        for (int list : lists.subList(1, lists.size())) {
            if (result.length <= FEW || segment.listBytes(list) / result.length > WORTH_READING) {
                break;
            }
            result = intersection(result, segment.pieces(list));
        }
        return Optional.of(result);
    }

    static int[] intersection(int[] a, int[] b) {
        int[] result = new int[Math.min(a.length, b.length)];
        int count = 0;
        for (int i = 0, k = 0; i < a.length && k < b.length; ) {
            if (a[i] == b[k]) {
                result[count++] = a[i++];
                k++;
            } else if (a[i] < b[k]) {
                i++;
            } else {
                k++;
            }
        }
        return Arrays.copyOf(result, count);
    }

    static int[] union(int[] a, int[] b) {
        int[] result = new int[a.length + b.length];
        int count = 0;
        int i = 0;
        int k = 0;
        while (i < a.length || k < b.length) {
            int next;
            if (k == b.length || i < a.length && a[i] <= b[k]) {
                next = a[i++];
                if (k < b.length && b[k] == next) {
                    k++;
                }
            } else {
                next = b[k++];
            }
            result[count++] = next;
        }
        return Arrays.copyOf(result, count);
    }
}
