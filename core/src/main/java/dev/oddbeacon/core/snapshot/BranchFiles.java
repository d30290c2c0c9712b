package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.LongStream;

/**
 * The files of a branch, each with its segment and blob. It is worked out once for a snapshot, and goes from view to view
 * as long as the segments that it names are there. Immutable, but for what is kept once it was asked for.
 */
final class BranchFiles {
    static final int NOWHERE = -1;
    private static final long MIXING = 0x9E3779B97F4A7C15L; // odd, with bits everywhere

    private final Branch branch;
    private final SharedFile<SnapshotReader> snapshot;
    private final int slot;
    private final List<SegmentReader> segments;
    private final int[] segment;
    private final int[] blob;
    private final boolean whole;
    private volatile Changed lastChanges = new Changed(Past.NONE, null);
    private volatile Mailmap mailmap;

    /** What was worked out of a past. */
    private record Changed(Past past, LastChanges changes) {}

    /**
     * @param slot stands for this snapshot in {@link SegmentPlaces}
     * @param segments those that it uses
     * @param segment of each file, an index into {@code segments}; -1 of a file whose text is nowhere
     * @param blob of each file in its segment
     */
    private BranchFiles(
            Branch branch,
            SharedFile<SnapshotReader> snapshot,
            int slot,
            List<SegmentReader> segments,
            int[] segment,
            int[] blob,
            boolean whole) {
        this.branch = branch;
        this.snapshot = snapshot;
        this.slot = slot;
        this.segments = segments;
        this.segment = segment;
        this.blob = blob;
        this.whole = whole;
    }

    /**
     * Finds the files of a snapshot.
     *
     * @param candidates segments, those first that are likely to have them
     * @param before the same branch before: most of its files are where they were
     * @param present the segments that there are
     */
    static BranchFiles resolve(
            Branch branch,
            SharedFile<SnapshotReader> shared,
            int slot,
            List<SegmentReader> candidates,
            Optional<BranchFiles> before,
            Set<SegmentReader> present) {
        return new Resolving(shared.reader(), candidates, before, present).resolve(branch, shared, slot);
    }

    /** The same files in another place, or of a branch of which something else is said. */
    BranchFiles as(Branch newBranch, int newSlot) {
        return newBranch.equals(branch) && newSlot == slot
                ? this
                : new BranchFiles(newBranch, snapshot, newSlot, segments, segment, blob, whole);
    }

    /** Finds the blobs of one snapshot. */
    private static final class Resolving {
        private final SnapshotReader snapshot;
        private final List<SegmentReader> candidates;
        private final Optional<BranchFiles> before;
        private final Set<SegmentReader> present;
        private final Map<SegmentReader, Integer> used = new IdentityHashMap<>();
        private final List<SegmentReader> segments = new ArrayList<>();
        private final int[] segment;
        private final int[] blob;
        private int latest; // neighbours in a snapshot are mostly neighbours in a segment
        private int old; // the file of the snapshot before that is likely to be the same

        Resolving(
                SnapshotReader snapshot,
                List<SegmentReader> candidates,
                Optional<BranchFiles> before,
                Set<SegmentReader> present) {
            this.snapshot = snapshot;
            this.candidates = candidates;
            this.before = before;
            this.present = present;
            this.segment = new int[snapshot.count()];
            this.blob = new int[snapshot.count()];
        }

        BranchFiles resolve(Branch branch, SharedFile<SnapshotReader> shared, int slot) {
            boolean whole = true;
            Arrays.fill(segment, NOWHERE);
            for (int file = 0; file < segment.length; file++) {
                if (snapshot.standing(file) == Standing.SEARCHED) {
                    ObjectId id = snapshot.id(file);
                    if (!asBefore(file, id)) {
                        search(file, id);
                    }
                    whole &= segment[file] != NOWHERE;
                }
            }
            return new BranchFiles(branch, shared, slot, List.copyOf(segments), segment, blob, whole);
        }

        private boolean asBefore(int file, ObjectId id) {
            if (before.isEmpty()) {
                return false;
            }
            BranchFiles known = before.get();
            SnapshotReader then = known.snapshot();
            for (int ahead = 0; ahead < 2 && old + ahead < then.count(); ahead++) {
                if (then.id(old + ahead).equals(id)) {
                    old += ahead + 1;
                    return take(file, known, old - 1);
                }
            }
            OptionalInt same = then.find(snapshot.path(file)); // it changed, or others came or went before it
            if (same.isEmpty()) {
                return false;
            }
            old = same.getAsInt() + 1;
            return then.id(same.getAsInt()).equals(id) && take(file, known, same.getAsInt());
        }

        private boolean take(int file, BranchFiles known, int there) {
            if (known.segment[there] == NOWHERE || !present.contains(known.segments.get(known.segment[there]))) {
                return false;
            }
            put(file, known.segments.get(known.segment[there]), known.blob[there]);
            return true;
        }

        private void search(int file, ObjectId id) {
            for (int k = 0; k < candidates.size(); k++) {
                int candidate = (latest + k) % candidates.size();
                int found = candidates.get(candidate).find(id);
                if (found >= 0) {
                    latest = candidate;
                    put(file, candidates.get(candidate), found);
                    return;
                }
            }
        }

        private void put(int file, SegmentReader where, int number) {
            segment[file] = used.computeIfAbsent(where, _ -> {
                segments.add(where);
                return segments.size() - 1;
            });
            blob[file] = number;
        }
    }

    Branch branch() {
        return branch;
    }

    SharedFile<SnapshotReader> shared() {
        return snapshot;
    }

    SnapshotReader snapshot() {
        return snapshot.reader();
    }

    int slot() {
        return slot;
    }

    int count() {
        return segment.length;
    }

    /** The segments that some of its files are in. */
    List<SegmentReader> segments() {
        return segments;
    }

    /** Whether all files that are searched are in a segment. */
    boolean isWhole() {
        return whole;
    }

    /** Stands for its files and their text: their snapshot has the same name wherever it was brought to. */
    long fingerprint() {
        long texts = whole
                ? segment.length
                : Arrays.stream(segment).filter(number -> number != NOWHERE).count();
        return LongStream.of(
                        branch.repository().hashCode(),
                        branch.labels().hashCode(),
                        branch.name().hashCode(),
                        branch.isDefault() ? 1 : 0,
                        snapshot.path().getFileName().toString().hashCode(),
                        texts)
                .reduce(1, (sum, one) -> sum * MIXING + one);
    }

    /** The segment of a file, an index into {@link #segments}; -1 if its text is nowhere. */
    int segment(int file) {
        return segment[file];
    }

    /** The blob of a file in its segment. */
    int blob(int file) {
        return blob[file];
    }

    /** The commit that last changed each file. */
    LastChanges lastChanges(Past past) {
        Changed known = lastChanges;
        if (known.changes == null || known.past != past) { // two threads may work it out at once; it is the same
            known = new Changed(past, LastChanges.of(past, branch, snapshot.reader()));
            lastChanges = known;
        }
        return known.changes;
    }

    /** Its file {@code .mailmap}. */
    Mailmap mailmap() {
        Mailmap known = mailmap;
        if (known == null) {
            OptionalInt file = snapshot.reader().find(".mailmap");
            known = file.isEmpty() || segment[file.getAsInt()] == NOWHERE
                    ? Mailmap.NONE
                    : mailmap(segments.get(segment[file.getAsInt()]), blob[file.getAsInt()]);
            mailmap = known;
        }
        return known;
    }

    private static Mailmap mailmap(SegmentReader segment, int blob) {
        return Mailmap.of(Utf8.string(segment.content(), segment.start(blob), segment.end(blob)));
    }
}
