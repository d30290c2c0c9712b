package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Successive bytes, each of a set: what every match of some regular expression holds. Immutable.
 *
 * <p>Laid out for {@link ByteScan#findRun}: set by set, the rarest first.
 *
 * @param length in bytes
 * @param ranges of all sets, one after the other: the lowest byte, and how far the highest is above it
 * @param rangeEnds for each set, where its ranges end
 * @param places in the run, of all sets, one after the other
 * @param placeEnds for each set, where its places end
 */
public record ByteRun(int length, byte[] ranges, int[] rangeEnds, int[] places, int[] placeEnds) {
    /** A processor's register holds two of the longest. */
    public static final int LONGEST = 16;
    /** A set that holds most bytes of a text is not worth asking about. */
    private static final double MOST_BYTES = 0.9;
    /**
     * Estimates, in nanoseconds: to look at a byte for one range of a set, and to look at a line where the run stands.
     */
    private static final double ONE_RANGE = 0.06;

    private static final double ONE_LINE = 120;
    /** Following the automaton takes about as long. */
    private static final double WORTH_IT = 2.5;

    private static ByteRun of(List<BitSet> bytes) {
        List<BitSet> distinct = bytes.stream()
                .filter(ByteRun::isWorthAsking)
                .distinct()
                .sorted(Comparator.comparingDouble(ByteRun::share))
                .toList();
        byte[] ranges = new byte[512 * distinct.size()];
        int[] places = new int[bytes.size()];
        int[] rangeEnds = new int[distinct.size()];
        int[] placeEnds = new int[distinct.size()];
        int rangeCount = 0;
        int placeCount = 0;
        for (int set = 0; set < rangeEnds.length; set++) {
            BitSet members = distinct.get(set);
            for (int low = members.nextSetBit(0); low >= 0; low = members.nextSetBit(members.nextClearBit(low))) {
                ranges[rangeCount++] = (byte) low;
                ranges[rangeCount++] = (byte) (members.nextClearBit(low) - 1 - low);
            }
            for (int place = 0; place < bytes.size(); place++) {
                if (bytes.get(place).equals(members)) {
                    places[placeCount++] = place;
                }
            }
            rangeEnds[set] = rangeCount;
            placeEnds[set] = placeCount;
        }
        return new ByteRun(
                bytes.size(),
                Arrays.copyOf(ranges, rangeCount),
                rangeEnds,
                Arrays.copyOf(places, placeCount),
                placeEnds);
    }

    private static boolean isWorthAsking(BitSet members) {
        return share(members) < MOST_BYTES;
    }

    /** Offset of the first whole occurrence in [start, end); -1 if it does not. */
    public long find(MemorySegment text, long start, long end) {
        return ByteScan.CHOSEN.findRun(text, start, end, this);
    }

    /** Whether it stands at an offset. */
    boolean at(MemorySegment text, long offset) {
        int range = 0;
        int place = 0;
        for (int set = 0; set < rangeEnds.length; set++) {
            for (; place < placeEnds[set]; place++) {
                int value = text.get(ValueLayout.JAVA_BYTE, offset + places[place]);
                boolean isMember = false;
                for (int i = range; i < rangeEnds[set]; i += 2) {
                    isMember |= (value - ranges[i] & 0xFF) <= (ranges[i + 1] & 0xFF);
                }
                if (!isMember) {
                    return false;
                }
            }
            range = rangeEnds[set];
        }
        return true;
    }

    /** Roughly which part of all bytes is in a set. */
    public static double share(BitSet members) {
        return members.stream()
                .mapToDouble(value -> ByteFrequency.share((byte) value))
                .sum();
    }

    /** A part of some successive sets that is cheap to look for and rare; empty if none is worth it. */
    public static Optional<Part> bestOf(List<BitSet> successive) {
        Optional<Part> best = Optional.empty();
        double least = WORTH_IT;
        for (int from = 0; from < successive.size(); from++) {
            for (int until = from + 1; until <= Math.min(successive.size(), from + LONGEST); until++) {
                ByteRun run = of(successive.subList(from, until));
                double rate = successive.subList(from, until).stream()
                        .filter(ByteRun::isWorthAsking)
                        .mapToDouble(ByteRun::share)
                        .reduce(1, (a, b) -> a * b);
                double cost = (run.ranges.length >> 1) * ONE_RANGE + rate * ONE_LINE;
                if (cost < least) {
                    least = cost;
                    best = Optional.of(new Part(run, from));
                }
            }
        }
        return best;
    }

    /** @param start how many of the sets stand before it */
    public record Part(ByteRun run, int start) {}
}
