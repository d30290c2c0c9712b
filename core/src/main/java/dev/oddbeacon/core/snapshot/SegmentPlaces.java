package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.segment.SegmentReader;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntPredicate;

/**
 * The files of each blob of a segment. Immutable; what a change adds stands beside the rest until it is so much that all
 * are sorted anew, so that a change costs what it changes.
 *
 * <p>A file is a slot, which stands for one snapshot of a branch, and a number. Slots whose snapshot is in no view any
 * more stay until all are sorted anew: a view passes over those that it does not know.
 */
final class SegmentPlaces {
    private static final int FEW = 64;
    private static final int PART = 4; // of all, may stand beside them

    private final int blobs;
    private final Table sorted;
    private final Beside beside;

    /** The places of blob {@code b} are from {@code starts[b]} up to {@code starts[b + 1]}. */
    private record Table(int[] starts, long[] places) {}

    /** Ascending by blob. @param has the blobs that occur */
    private record Beside(BitSet has, int[] blobs, long[] places) {
        static final Beside NOTHING = new Beside(new BitSet(), new int[0], new long[0]);
    }

    private SegmentPlaces(int blobs, Table sorted, Beside beside) {
        this.blobs = blobs;
        this.sorted = sorted;
        this.beside = beside;
    }

    static SegmentPlaces none(SegmentReader segment) {
        int blobs = segment.blobCount();
        return new SegmentPlaces(blobs, new Table(new int[blobs + 1], new long[0]), Beside.NOTHING);
    }

    /** These and the files of more branches in the same segment. @param isLive whether a slot is of a branch that is there */
    SegmentPlaces with(SegmentReader segment, List<BranchFiles> more, IntPredicate isLive) {
        long[][] added = more.stream().map(branch -> places(segment, branch)).toArray(long[][]::new);
        int count = Arrays.stream(added).mapToInt(of -> of.length / 2).sum();
        return beside.blobs.length + count > Math.max(FEW, sorted.places.length / PART)
                ? sortedAnew(added, isLive)
                : new SegmentPlaces(blobs, sorted, besideWith(added, count));
    }

    /** Blobs and places in turn, in the order of files. */
    private static long[] places(SegmentReader segment, BranchFiles branch) {
        int index = branch.segments().indexOf(segment);
        long high = (long) branch.slot() << 32;
        long[] pairs = new long[16];
        int size = 0;
        for (int file = 0; file < branch.count(); file++) {
            if (branch.segment(file) == index) {
                if (size == pairs.length) {
                    pairs = Arrays.copyOf(pairs, size * 2);
                }
                pairs[size++] = branch.blob(file);
                pairs[size++] = high | file;
            }
        }
        return Arrays.copyOf(pairs, size);
    }

    private Beside besideWith(long[][] added, int count) {
        int at = beside.blobs.length;
        int[] ofBlobs = Arrays.copyOf(beside.blobs, at + count);
        long[] ofPlaces = Arrays.copyOf(beside.places, at + count);
        BitSet has = (BitSet) beside.has.clone();
        for (long[] pairs : added) {
            for (int i = 0; i < pairs.length; i += 2) {
                ofBlobs[at] = (int) pairs[i];
                ofPlaces[at++] = pairs[i + 1];
                has.set((int) pairs[i]);
            }
        }
        long[] order = new long[ofBlobs.length]; // by blob
        Arrays.setAll(order, i -> (long) ofBlobs[i] << 32 | i);
        Arrays.sort(order);
        return new Beside(
                has,
                Arrays.stream(order).mapToInt(entry -> (int) (entry >>> 32)).toArray(),
                Arrays.stream(order).map(entry -> ofPlaces[(int) entry]).toArray());
    }

    private SegmentPlaces sortedAnew(long[][] added, IntPredicate isLive) {
        int[] starts = new int[blobs + 1];
        forAll(added, isLive, (blob, _) -> starts[blob + 1]++);
        Arrays.parallelPrefix(starts, Integer::sum);
        long[] places = new long[starts[blobs]];
        int[] next = starts.clone();
        forAll(added, isLive, (blob, place) -> places[next[blob]++] = place);
        return new SegmentPlaces(blobs, new Table(starts, places), Beside.NOTHING);
    }

    private interface PlaceOfBlob {
        void place(int blob, long place);
    }

    private void forAll(long[][] added, IntPredicate isLive, PlaceOfBlob consumer) {
        for (int blob = 0; blob < blobs; blob++) {
            for (int i = sorted.starts[blob]; i < sorted.starts[blob + 1]; i++) {
                if (isLive.test((int) (sorted.places[i] >>> 32))) {
                    consumer.place(blob, sorted.places[i]);
                }
            }
        }
        for (int i = 0; i < beside.blobs.length; i++) {
            if (isLive.test((int) (beside.places[i] >>> 32))) {
                consumer.place(beside.blobs[i], beside.places[i]);
            }
        }
        for (long[] pairs : added) {
            for (int i = 0; i < pairs.length; i += 2) {
                consumer.place((int) pairs[i], pairs[i + 1]);
            }
        }
    }

    /**
     * Tells the files of a blob, in no order.
     *
     * @param branches the branch number of each slot, -1 where there is none
     */
    void forEach(int blob, int[] branches, View.PlaceConsumer consumer) {
        for (int i = sorted.starts[blob]; i < sorted.starts[blob + 1]; i++) {
            tell(sorted.places[i], branches, consumer);
        }
        if (beside.has.get(blob)) {
            for (int i = firstBeside(blob); i < beside.blobs.length && beside.blobs[i] == blob; i++) {
                tell(beside.places[i], branches, consumer);
            }
        }
    }

    private static void tell(long place, int[] branches, View.PlaceConsumer consumer) {
        int branch = branches[(int) (place >>> 32)];
        if (branch >= 0) {
            consumer.place(branch, (int) place);
        }
    }

    private int firstBeside(int blob) {
        int at = Arrays.binarySearch(beside.blobs, blob);
        while (at > 0 && beside.blobs[at - 1] == blob) {
            at--;
        }
        return at;
    }
}
