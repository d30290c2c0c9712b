package dev.oddbeacon.core.search;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import java.util.Arrays;
import java.util.Optional;

/** A file that somebody has in hand: what is close to it may come first. It need not be indexed. */
public record FileInHand(String repository, String path) {
    /** The distance of a file of another repository. */
    public static final int ELSEWHERE = 1 << 12;

    private static final int INDEX_BITS = 32;

    /** Reads repository/path; empty if it is of another form. */
    public static Optional<FileInHand> parse(String text) {
        int slash = text.indexOf('/');
        return slash <= 0 || slash == text.length() - 1
                ? Optional.empty()
                : Optional.of(new FileInHand(text.substring(0, slash), text.substring(slash + 1)));
    }

    /**
     * How far a file is from it: 0 for itself, 1 in its folder, 1 more for each folder up and down; {@link #ELSEWHERE} in
     * another repository.
     */
    public int distance(String ofRepository, String other) {
        if (!repository.equals(ofRepository)) {
            return ELSEWHERE;
        }
        if (path.equals(other)) {
            return 0;
        }
        int common = 0; // up to behind the last folder that both stand in
        for (int i = 0; i < Math.min(path.length(), other.length()) && path.charAt(i) == other.charAt(i); i++) {
            common = path.charAt(i) == '/' ? i + 1 : common;
        }
        return Math.min(ELSEWHERE - 1, 1 + folders(path, common) + folders(other, common));
    }

    private static int folders(String path, int from) {
        int count = 0;
        for (int i = path.indexOf('/', from); i >= 0; i = path.indexOf('/', i + 1)) {
            count++;
        }
        return count;
    }

    /** Places (branch numbers, then file numbers) by how close they are; those equally close stay as they were. */
    public long[] ordered(View view, long[] places) {
        long[] keys = new long[places.length];
        for (int i = 0; i < keys.length; i++) {
            keys[i] = (long) distance(view, (int) (places[i] >>> 32), (int) places[i]) << INDEX_BITS | i;
        }
        Arrays.sort(keys);
        return Arrays.stream(keys).map(key -> places[(int) key]).toArray();
    }

    public int distance(View view, int branchNumber, int file) {
        SnapshotReader snapshot = view.snapshot(branchNumber);
        String of = view.branch(branchNumber).repository();
        return repository.equals(of) ? distance(of, snapshot.path(file)) : ELSEWHERE;
    }
}
