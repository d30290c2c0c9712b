package dev.oddbeacon.core.files;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.text.CaseFolding;
import java.io.ByteArrayOutputStream;
import java.lang.foreign.MemorySegment;
import java.lang.ref.SoftReference;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Map;
import java.util.WeakHashMap;

/**
 * All paths of a snapshot, one after the other, as they are and case-folded, each followed by a zero byte: in memory as
 * long as there is room, because every key that is typed asks for all of them. Immutable.
 */
final class PathTable {
    private static final Map<SnapshotReader, SoftReference<PathTable>> TABLES = new WeakHashMap<>();

    private final byte[] bytes;
    private final byte[] folded;
    private final int[] starts;
    private final int[] foldedStarts;
    private final long[] masks; // by path: which bytes, but for their two highest bits, stand in its folded form

    private PathTable(SnapshotReader snapshot) {
        int count = snapshot.count();
        starts = new int[count + 1];
        foldedStarts = new int[count + 1];
        masks = new long[count];
        ByteArrayOutputStream all = new ByteArrayOutputStream(count * 48);
        ByteArrayOutputStream allFolded = new ByteArrayOutputStream(count * 48);
        snapshot.forEachPathBytes((path, length, number) -> {
            all.write(path, 0, length);
            all.write(0);
            byte[] lower = folded(path, length);
            allFolded.write(lower, 0, lower.length);
            allFolded.write(0);
            starts[number + 1] = all.size();
            foldedStarts[number + 1] = allFolded.size();
            masks[number] = mask(lower);
        });
        bytes = all.toByteArray();
        folded = allFolded.toByteArray();
    }

    static PathTable of(SnapshotReader snapshot) {
        synchronized (TABLES) {
            SoftReference<PathTable> kept = TABLES.get(snapshot);
            PathTable table = kept == null ? null : kept.get();
            if (table == null) {
                table = new PathTable(snapshot);
                TABLES.put(snapshot, new SoftReference<>(table));
            }
            return table;
        }
    }

    static byte[] folded(byte[] path, int length) {
        byte[] lower = new byte[length];
        for (int i = 0; i < length; i++) {
            byte c = path[i];
            if (c < 0) {
                return CaseFolding.foldedUtf8(new String(path, 0, length, StandardCharsets.UTF_8));
            }
            lower[i] = c >= 'A' && c <= 'Z' ? (byte) (c + 0x20) : c;
        }
        return lower;
    }

    /** The bytes that occur, without their two highest bits, as the bits of a number. */
    static long mask(byte[] bytes) {
        long mask = 0;
        for (byte b : bytes) {
            mask |= 1L << (b & 0x3F);
        }
        return mask;
    }

    int count() {
        return masks.length;
    }

    long mask(int number) {
        return masks[number];
    }

    /** All folded paths. */
    MemorySegment folded() {
        return MemorySegment.ofArray(folded);
    }

    /** The path that a place among the folded ones belongs to. */
    int at(long offset) {
        int found = Arrays.binarySearch(foldedStarts, (int) offset);
        return found >= 0 ? found : -found - 2;
    }

    long foldedEnd(int number) {
        return foldedStarts[number + 1];
    }

    /** Lets a path stand for one of these. */
    void show(int number, PathMatcher.Path path) {
        path.set(
                bytes,
                starts[number],
                starts[number + 1] - starts[number] - 1,
                folded,
                foldedStarts[number],
                foldedStarts[number + 1] - foldedStarts[number] - 1);
    }
}
