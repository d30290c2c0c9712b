package dev.oddbeacon.core.source.language;

import dev.oddbeacon.core.source.Region;
import java.util.Arrays;

/**
 * What a {@link Lexer} collects: regions that are not code, and names in code. Offsets are bytes. Kept from file to
 * file, because the arrays are large.
 */
public final class Found {
    private static final int KEPT = 1 << 20;

    private int[] regionStarts = new int[256];
    private int[] regionEnds = new int[256];
    private byte[] regionKinds = new byte[256];
    private int regions;
    private int[] nameStarts = new int[1_024];
    private int[] nameEnds = new int[1_024];
    private long[] nameHashes = new long[1_024];
    private int names;

    /** Forgets all. */
    public void clear() {
        if (nameStarts.length > KEPT) {
            nameStarts = new int[1_024];
            nameEnds = new int[1_024];
            nameHashes = new long[1_024];
        }
        regions = 0;
        names = 0;
    }

    /** Adds a region; the parts of a string become one. */
    public void region(int start, int end, Region region) {
        if (start >= end) {
            return;
        }
        if (regions > 0
                && regionEnds[regions - 1] == start
                && regionKinds[regions - 1] == region.code()
                && region == Region.STRING) {
            regionEnds[regions - 1] = end; // the parts of a string
            return;
        }
        if (regions == regionStarts.length) {
            regionStarts = Arrays.copyOf(regionStarts, regions * 2);
            regionEnds = Arrays.copyOf(regionEnds, regions * 2);
            regionKinds = Arrays.copyOf(regionKinds, regions * 2);
        }
        regionStarts[regions] = start;
        regionEnds[regions] = end;
        regionKinds[regions++] = (byte) region.code();
    }

    void name(int start, int end, long hash) {
        if (names == nameStarts.length) {
            nameStarts = Arrays.copyOf(nameStarts, names * 2);
            nameEnds = Arrays.copyOf(nameEnds, names * 2);
            nameHashes = Arrays.copyOf(nameHashes, names * 2);
        }
        nameStarts[names] = start;
        nameEnds[names] = end;
        nameHashes[names++] = hash;
    }

    /** Number of regions that are not code; they ascend and do not overlap. */
    public int regions() {
        return regions;
    }

    public int regionStart(int index) {
        return regionStarts[index];
    }

    public int regionEnd(int index) {
        return regionEnds[index];
    }

    public Region region(int index) {
        return Region.of(regionKinds[index]);
    }

    /** Number of names, which are in ascending order. */
    public int names() {
        return names;
    }

    public int nameStart(int index) {
        return nameStarts[index];
    }

    public int nameEnd(int index) {
        return nameEnds[index];
    }

    /** See {@link WordTable#hash}. */
    public long nameHash(int index) {
        return nameHashes[index];
    }
}
