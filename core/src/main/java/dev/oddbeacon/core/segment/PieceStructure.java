package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.ArrayList;
import java.util.List;

/**
 * What analysis found in one piece, as {@link StructureWriter} wrote it. Offsets are those of the content of the
 * segment.
 */
public final class PieceStructure {
    /**
     * A declaration, or a use of which the position says something.
     *
     * @param number in its blob, from 0
     * @param parent the number of the one that it stands in, -1 for none
     * @param qualifierEnd equal to the start if there is no qualifier
     */
    public record Declared(
            int number,
            Kind kind,
            long nameStart,
            long nameEnd,
            int parent,
            long start,
            long headEnd,
            long end,
            long qualifierStart,
            long qualifierEnd) {}

    private PieceStructure() {}

    /** Decodes regions: where each starts and ends, two by two, then whether it is a string. */
    static final class Regions {
        long[] bounds = new long[64];
        Region[] kinds = new Region[32];
        int count;

        void read(MemorySegment bytes, long pieceStart) {
            Numbers numbers = new Numbers(bytes);
            long at = pieceStart;
            count = 0;
            while (numbers.hasMore()) {
                at += numbers.next();
                int length = numbers.next();
                if (count == kinds.length) {
                    kinds = java.util.Arrays.copyOf(kinds, count * 2);
                    bounds = java.util.Arrays.copyOf(bounds, count * 4);
                }
                bounds[2 * count] = at;
                at += length >>> 1;
                bounds[2 * count + 1] = at;
                kinds[count++] = (length & 1) == 1 ? Region.STRING : Region.COMMENT;
            }
        }
    }

    static List<Declared> declarations(MemorySegment bytes, long pieceStart, int firstNumber) {
        if (bytes.byteSize() == 0) {
            return List.of();
        }
        Numbers numbers = new Numbers(bytes);
        List<Declared> result = new ArrayList<>();
        long name = pieceStart;
        int number = firstNumber;
        while (numbers.hasMore()) {
            int kind = numbers.octet();
            name += numbers.next();
            long nameEnd = name + numbers.next();
            int back = numbers.next();
            long start = name - numbers.next();
            long headEnd = nameEnd + numbers.next();
            long end = headEnd + numbers.next();
            boolean qualified = (kind & StructureWriter.QUALIFIED) != 0;
            long qualifier = qualified ? name - numbers.next() : name;
            long qualifierEnd = qualified ? qualifier + numbers.next() : name;
            result.add(new Declared(
                    number,
                    Kind.of(kind & ~StructureWriter.QUALIFIED),
                    name,
                    nameEnd,
                    back == 0 ? -1 : number - back,
                    start,
                    headEnd,
                    end,
                    qualifier,
                    qualifierEnd));
            number++;
        }
        return result;
    }

    /** Reads numbers of seven bits a byte. */
    static final class Numbers {
        private final byte[] bytes;
        private int at;

        Numbers(MemorySegment memory) {
            bytes = memory.toArray(ValueLayout.JAVA_BYTE);
        }

        boolean hasMore() {
            return at < bytes.length;
        }

        int octet() {
            return bytes[at++] & 0xFF;
        }

        int next() {
            int part = bytes[at++];
            int value = part & 0x7F;
            for (int shift = 7; part < 0; shift += 7) {
                part = bytes[at++];
                value |= (part & 0x7F) << shift;
            }
            return value;
        }
    }
}
