package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.nio.ByteOrder;
import jdk.incubator.vector.ByteVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * As many bytes at a time as the processor's registers hold. Comparing two bytes of the literal at once, the two
 * that are rarest in source text, leaves so few candidates that the check of the whole literal hardly counts.
 */
final class VectorByteScan implements ByteScan {
    private static final VectorSpecies<Byte> SPECIES = ByteVector.SPECIES_PREFERRED;
    private static final ByteOrder ORDER = ByteOrder.nativeOrder();
    private static final PlainByteScan TAIL = new PlainByteScan();

    @Override
    public long find(MemorySegment text, long start, long end, byte value) {
        int width = SPECIES.length();
        long i = start;
        for (; i + width <= end; i += width) {
            long hits = ByteVector.fromMemorySegment(SPECIES, text, i, ORDER)
                    .eq(value)
                    .toLong();
            if (hits != 0) {
                return i + Long.numberOfTrailingZeros(hits);
            }
        }
        return TAIL.find(text, i, end, value);
    }

    @Override
    public int count(MemorySegment text, long start, long end, byte value) {
        int width = SPECIES.length();
        int count = 0;
        long i = start;
        for (; i + width <= end; i += width) {
            count += ByteVector.fromMemorySegment(SPECIES, text, i, ORDER)
                    .eq(value)
                    .trueCount();
        }
        return count + TAIL.count(text, i, end, value);
    }

    @Override
    public long findPair(MemorySegment text, long start, long end, Anchor anchor) {
        int width = SPECIES.length();
        long limit = Math.min(end, text.byteSize() - anchor.distance());
        long i = start;
        if (anchor.firstCase() == 0 && anchor.secondCase() == 0) {
            for (; i + width <= limit; i += width) {
                long hits = ByteVector.fromMemorySegment(SPECIES, text, i, ORDER)
                        .eq(anchor.first())
                        .and(ByteVector.fromMemorySegment(SPECIES, text, i + anchor.distance(), ORDER)
                                .eq(anchor.second()))
                        .toLong();
                if (hits != 0) {
                    return i + Long.numberOfTrailingZeros(hits);
                }
            }
        } else {
            for (; i + width <= limit; i += width) {
                long hits = ByteVector.fromMemorySegment(SPECIES, text, i, ORDER)
                        .lanewise(VectorOperators.OR, anchor.firstCase())
                        .eq(anchor.first())
                        .and(ByteVector.fromMemorySegment(SPECIES, text, i + anchor.distance(), ORDER)
                                .lanewise(VectorOperators.OR, anchor.secondCase())
                                .eq(anchor.second()))
                        .toLong();
                if (hits != 0) {
                    return i + Long.numberOfTrailingZeros(hits);
                }
            }
        }
        return TAIL.findPair(text, i, end, anchor);
    }

    /**
     * Asks of as many bytes as fit which are of each set; shifting the answers onto each other leaves where the run
     * starts.
     */
    @Override
    public long findRun(MemorySegment text, long start, long end, ByteRun run) {
        int width = SPECIES.length();
        long i = start;
        if (run.length() <= width / 2) {
            byte[] ranges = run.ranges();
            int[] rangeEnds = run.rangeEnds();
            int[] places = run.places();
            int[] placeEnds = run.placeEnds();
            int step = width - run.length() + 1;
            long starts = -1L >>> Long.SIZE - step;
            boolean isOneRange = rangeEnds[0] == 2;
            byte low = isOneRange ? ranges[0] : 0;
            byte span = isOneRange ? ranges[1] : 0;
            int firstPlace = places[0];
            for (; i + width <= end; i += step) {
                ByteVector bytes = ByteVector.fromMemorySegment(SPECIES, text, i, ORDER);
                if (isOneRange
                        && (bytes.sub(low).compare(VectorOperators.ULE, span).toLong() >>> firstPlace & starts) == 0) {
                    continue; // the rarest set is nearly always absent, and often one range
                }
                long hits = starts;
                int range = 0;
                int place = 0;
                for (int set = 0; set < rangeEnds.length && hits != 0; set++) {
                    long members = 0;
                    for (; range < rangeEnds[set]; range += 2) {
                        members |= bytes.sub(ranges[range])
                                .compare(VectorOperators.ULE, ranges[range + 1])
                                .toLong();
                    }
                    for (; place < placeEnds[set]; place++) {
                        hits &= members >>> places[place];
                    }
                }
                if (hits != 0) {
                    return i + Long.numberOfTrailingZeros(hits);
                }
            }
        }
        return TAIL.findRun(text, i, end, run);
    }
}
