package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.SegmentReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
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
        return new View(0, List.of(), List.of(), Map.of());
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
        Map<Path, SharedFile<SegmentReader>> openSegments = new HashMap<>();
        before.segmentFiles().forEach(file -> openSegments.put(file.path(), file));
        Map<Path, View.BranchFiles> openSnapshots = new HashMap<>();
        before.branchFiles().forEach(files -> openSnapshots.put(files.snapshot().path(), files));

        List<SharedFile<?>> retained = new ArrayList<>();
        try {
            List<SharedFile<SegmentReader>> segmentFiles = new ArrayList<>();
            for (Path path : segments) {
                SharedFile<SegmentReader> open = openSegments.get(path);
                SharedFile<SegmentReader> file =
                        open == null ? new SharedFile<>(path, new SegmentReader(path)) : open.retain();
                retained.add(file);
                segmentFiles.add(file);
            }
            List<SegmentReader> readers =
                    segmentFiles.stream().map(SharedFile::reader).toList();
            Set<SegmentReader> present = new HashSet<>(readers);
            List<View.BranchFiles> branchFiles = new ArrayList<>();
            List<Wanted> ordered = branches.stream()
                    .sorted(Comparator.comparing(
                                    (Wanted wanted) -> wanted.branch().repository())
                            .thenComparing(wanted -> wanted.branch().name()))
                    .toList();
            for (Wanted wanted : ordered) {
                View.BranchFiles open = openSnapshots.get(wanted.snapshot());
                SharedFile<SnapshotReader> file = open == null
                        ? new SharedFile<>(wanted.snapshot(), new SnapshotReader(wanted.snapshot()))
                        : open.snapshot().retain();
                retained.add(file);
                boolean asBefore = open != null && present.containsAll(open.segments()) && open.isWhole();
                branchFiles.add(
                        asBefore
                                ? new View.BranchFiles(
                                        wanted.branch(), file, open.segments(), open.segment(), open.blob())
                                : View.BranchFiles.resolve(wanted.branch(), file, readers));
            }
            Map<String, View.PastFiles> pasts = new HashMap<>();
            for (Map.Entry<String, List<Path>> history : histories.entrySet()) {
                pasts.put(
                        history.getKey(), past(before.pastFiles().get(history.getKey()), history.getValue(), retained));
            }
            return new View(before.number() + 1, segmentFiles, branchFiles, Map.copyOf(pasts));
        } catch (IOException | RuntimeException e) {
            retained.forEach(SharedFile::release);
            throw e;
        }
    }

    private static View.PastFiles past(View.PastFiles before, List<Path> paths, List<SharedFile<?>> retained)
            throws IOException {
        List<SharedFile<HistoryReader>> open = before == null ? List.of() : before.files();
        List<SharedFile<HistoryReader>> files = new ArrayList<>();
        for (Path path : paths) {
            Optional<SharedFile<HistoryReader>> known =
                    open.stream().filter(file -> file.path().equals(path)).findFirst();
            SharedFile<HistoryReader> file =
                    known.isPresent() ? known.get().retain() : new SharedFile<>(path, new HistoryReader(path));
            retained.add(file);
            files.add(file);
        }
        boolean asBefore = before != null && files.equals(open);
        return new View.PastFiles(
                List.copyOf(files),
                asBefore
                        ? before.past()
                        : new Past(files.stream().map(SharedFile::reader).toList()));
    }

    /** Marks the files of a view that the next one does not have: they are deleted when the last search lets go. */
    public static void giveUpAbsent(View before, View next) {
        Set<Path> live = new HashSet<>();
        next.segmentFiles().forEach(file -> live.add(file.path()));
        next.branchFiles().forEach(files -> live.add(files.snapshot().path()));
        next.pastFiles().values().forEach(past -> past.files().forEach(file -> live.add(file.path())));
        before.pastFiles().values().stream()
                .flatMap(past -> past.files().stream())
                .filter(file -> !live.contains(file.path()))
                .forEach(SharedFile::giveUp);
        before.segmentFiles().stream()
                .filter(file -> !live.contains(file.path()))
                .forEach(SharedFile::giveUp);
        before.branchFiles().stream()
                .map(View.BranchFiles::snapshot)
                .filter(file -> !live.contains(file.path()))
                .forEach(SharedFile::giveUp);
    }

    /** Branches that have files whose text is in no segment, because a segment was lost: they must be indexed anew. */
    public static List<Branch> incomplete(View view) {
        return view.branchFiles().stream()
                .filter(files -> !files.isWhole())
                .map(View.BranchFiles::branch)
                .toList();
    }
}
