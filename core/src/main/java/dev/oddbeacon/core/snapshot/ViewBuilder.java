package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.segment.SegmentReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Makes the next view from the list of live files. Files that the view before has open stay open; where a branch's
 * snapshot and segments are as before, so is the work of finding its blobs.
 */
public final class ViewBuilder {
    /** A branch and the file of its snapshot. */
    public record Wanted(Branch branch, Path snapshot) {}

    private ViewBuilder() {}

    /** A view of nothing, to start from. */
    public static View empty() {
        return new View(0, List.of(), List.of(), Pasts.NONE, Map.of(), 0);
    }

    /**
     * Builds the view after another. The caller holds both then: it releases the one before.
     *
     * @throws IOException if a file cannot be opened; nothing is open then that was not before
     */
    public static View next(View before, List<Path> segments, List<Wanted> branches) throws IOException {
        return next(before, segments, branches, Map.of());
    }

    /** @param histories the files with the past of each repository, by its name */
    public static View next(View before, List<Path> segments, List<Wanted> branches, Map<String, List<Path>> histories)
            throws IOException {
        List<SharedFile<?>> retained = new ArrayList<>();
        try {
            Map<Path, SharedFile<SegmentReader>> openSegments = new HashMap<>();
            before.segmentFiles().forEach(file -> openSegments.put(file.path(), file));
            List<SharedFile<SegmentReader>> segmentFiles = new ArrayList<>();
            for (Path path : segments) {
                SharedFile<SegmentReader> open = openSegments.get(path);
                SharedFile<SegmentReader> file =
                        open == null ? new SharedFile<>(path, new SegmentReader(path)) : open.retain();
                retained.add(file);
                segmentFiles.add(file);
            }
            Slots slots = new Slots(before, branches.size());
            List<BranchFiles> branchFiles = branches(before, segmentFiles, branches, slots, retained);
            View next = new View(
                    before.number() + 1,
                    segmentFiles,
                    branchFiles,
                    before.pasts().next(histories, retained),
                    places(before, segmentFiles, branchFiles, slots),
                    slots.given());
            retained.forEach(file -> file.wantedBy(next));
            return next;
        } catch (IOException | RuntimeException e) {
            retained.forEach(SharedFile::release);
            throw e;
        }
    }

    /** The branches in their order; what is known of a snapshot goes on while all segments that it uses are there. */
    private static List<BranchFiles> branches(
            View before,
            List<SharedFile<SegmentReader>> segmentFiles,
            List<Wanted> branches,
            Slots slots,
            List<SharedFile<?>> retained)
            throws IOException {
        Set<SegmentReader> open = Collections.newSetFromMap(new IdentityHashMap<>());
        before.segmentFiles().forEach(file -> open.add(file.reader()));
        Set<SegmentReader> present = Collections.newSetFromMap(new IdentityHashMap<>());
        Map<String, List<SegmentReader>> newestFirst =
                new HashMap<>(); // by group; what changed is mostly in what is new
        segmentFiles.forEach(file -> present.add(file.reader()));
        segmentFiles.stream()
                .map(SharedFile::reader)
                .sorted(Comparator.comparing(open::contains)) // stable
                .forEach(segment -> newestFirst
                        .computeIfAbsent(segment.about().group(), _ -> new ArrayList<>())
                        .add(segment));
        List<BranchFiles> known = before.branchFiles();
        int next = 0; // both are in the same order
        List<BranchFiles> all = new ArrayList<>();
        for (Wanted wanted : ordered(branches)) {
            while (next < known.size() && order(known.get(next).branch(), wanted.branch()) < 0) {
                next++;
            }
            boolean isKnown = next < known.size() && order(known.get(next).branch(), wanted.branch()) == 0;
            Optional<BranchFiles> earlier = isKnown ? Optional.of(known.get(next)) : Optional.empty();
            BranchFiles same = earlier.filter(files -> files.shared().path().equals(wanted.snapshot()))
                    .orElse(null);
            SharedFile<SnapshotReader> file = same == null
                    ? new SharedFile<>(wanted.snapshot(), new SnapshotReader(wanted.snapshot()))
                    : same.shared().retain();
            retained.add(file);
            boolean asBefore = same != null && same.isWhole() && present.containsAll(same.segments());
            all.add(
                    asBefore
                            ? same.as(wanted.branch(), slots.of(same))
                            : BranchFiles.resolve(
                                    wanted.branch(),
                                    file,
                                    slots.next(),
                                    newestFirst.getOrDefault(
                                            file.reader().about().group(), List.of()),
                                    earlier.filter(files -> files.snapshot()
                                            .about()
                                            .group()
                                            .equals(file.reader().about().group())),
                                    present));
        }
        return all;
    }

    private static int order(Branch a, Branch b) {
        int order = a.repository().compareTo(b.repository());
        return order == 0 ? a.name().compareTo(b.name()) : order;
    }

    private static List<Wanted> ordered(List<Wanted> branches) {
        return branches.stream().sorted((a, b) -> order(a.branch(), b.branch())).toList();
    }

    /** Gives each snapshot a number of its own. When many numbers are of snapshots that are gone, all get new ones. */
    private static final class Slots {
        private static final int MOST_FOR_A_BRANCH = 2;
        private static final int FEW = 100;

        private final boolean anew;
        private int next;

        Slots(View before, int branches) {
            this.anew = before.slots() > MOST_FOR_A_BRANCH * branches + FEW;
            this.next = anew ? 0 : before.slots();
        }

        int given() {
            return next;
        }

        boolean areAnew() {
            return anew;
        }

        int of(BranchFiles branch) {
            return anew ? next() : branch.slot();
        }

        int next() {
            return next++;
        }
    }

    /** Where the blobs of each segment are. Only the files of snapshots that are new are added. */
    private static Map<SegmentReader, SegmentPlaces> places(
            View before, List<SharedFile<SegmentReader>> segmentFiles, List<BranchFiles> branches, Slots slots) {
        BitSet placed = new BitSet();
        BitSet live = new BitSet();
        before.branchFiles().forEach(branch -> placed.set(branch.slot()));
        Map<SegmentReader, List<BranchFiles>> added = new IdentityHashMap<>();
        for (BranchFiles branch : branches) {
            live.set(branch.slot());
            if (slots.areAnew() || !placed.get(branch.slot())) {
                branch.segments()
                        .forEach(segment -> added.computeIfAbsent(segment, _ -> new ArrayList<>())
                                .add(branch));
            }
        }
        Map<SegmentReader, SegmentPlaces> places = new IdentityHashMap<>();
        for (SharedFile<SegmentReader> file : segmentFiles) {
            SegmentReader segment = file.reader();
            SegmentPlaces known = slots.areAnew() ? null : before.places().get(segment);
            SegmentPlaces so = known == null ? SegmentPlaces.none(segment) : known;
            List<BranchFiles> more = added.getOrDefault(segment, List.of());
            places.put(segment, more.isEmpty() ? so : so.with(segment, more, live::get));
        }
        return places;
    }

    /** Marks the files of a view that the next one does not have: they are deleted when the last search lets go. */
    public static void giveUpAbsent(View before, View next) {
        before.segmentFiles().forEach(file -> giveUpUnless(next, file));
        before.branchFiles().forEach(files -> giveUpUnless(next, files.shared()));
        before.pasts().forEachFile(file -> giveUpUnless(next, file));
    }

    private static void giveUpUnless(View wanted, SharedFile<?> file) {
        if (!file.isWantedBy(wanted)) {
            file.giveUp();
        }
    }

    /** Branches that have files whose text is in no segment, because a segment was lost: they must be indexed anew. */
    public static List<Branch> incomplete(View view) {
        return view.branchFiles().stream()
                .filter(files -> !files.isWhole())
                .map(BranchFiles::branch)
                .toList();
    }
}
