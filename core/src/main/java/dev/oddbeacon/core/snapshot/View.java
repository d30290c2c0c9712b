package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * What a search sees: a set of open segments, and branches whose files lie in them. Immutable; a change of the index
 * makes a new view ({@link ViewBuilder}), and a search keeps the one it began with.
 *
 * <p>Branches are ordered by repository and name and known by their number. A <em>place</em> is a file of a branch,
 * {@code branchNumber << 32 | number of the file}: places ascend in the order of repository, branch and path.
 */
public final class View {
    /** Location of the blob of a file: a segment, and its number there; nowhere for a file that is skipped. */
    public record Location(SegmentReader segment, int blob) {}

    private static final int NOWHERE = -1;
    /** Parts of a view that are kept for callers who may see the same repositories. */
    private static final int MOST_PARTS = 32;

    private final long number;
    private final List<SharedFile<SegmentReader>> segmentFiles;
    private final Map<String, PastFiles> pastFiles; // by repository
    private final List<BranchFiles> branchFiles;
    private final List<Branch> branches;
    private final List<SegmentReader> segments;
    private final List<int[]>
            segmentNumbers; // by branch number: from the numbers that BranchFiles uses to those of this view
    private final Map<SegmentReader, Places> places = new IdentityHashMap<>();
    private final Map<BranchFiles, LastChanges> lastChanges; // shared with the views that are parts of this one
    private final Map<String, Mailmap> mailmaps;
    private final Optional<View> whole; // of which this is a part
    private final Set<String> hidden;
    private final Map<Object, View> parts = Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Object, View> eldest) {
            return size() > MOST_PARTS;
        }
    });
    private final AtomicInteger users = new AtomicInteger(1);

    /** The files of a branch, each with its segment (an index into {@code segments}, or -1) and blob. */
    record BranchFiles(
            Branch branch,
            SharedFile<SnapshotReader> snapshot,
            List<SegmentReader> segments,
            int[] segment,
            int[] blob) {
        static BranchFiles resolve(Branch branch, SharedFile<SnapshotReader> shared, List<SegmentReader> segments) {
            SnapshotReader snapshot = shared.reader();
            int[] segment = new int[snapshot.count()];
            int[] blob = new int[snapshot.count()];
            int latest = 0; // neighbours in a snapshot are mostly neighbours in a segment
            for (int file = 0; file < segment.length; file++) {
                segment[file] = NOWHERE;
                if (snapshot.standing(file) != SnapshotFile.Standing.SEARCHED) {
                    continue;
                }
                var id = snapshot.id(file);
                for (int k = 0; k < segments.size(); k++) {
                    int candidate = (latest + k) % segments.size();
                    int found = segments.get(candidate).find(id);
                    if (found >= 0) {
                        latest = segment[file] = candidate;
                        blob[file] = found;
                        break;
                    }
                }
            }
            return new BranchFiles(branch, shared, segments, segment, blob);
        }

        boolean isWhole() {
            SnapshotReader reader = snapshot.reader();
            for (int file = 0; file < segment.length; file++) {
                if (segment[file] == NOWHERE && reader.standing(file) == SnapshotFile.Standing.SEARCHED) {
                    return false;
                }
            }
            return true;
        }
    }

    /** The files of each blob of a segment, ascending. */
    private record Places(int[] starts, long[] places) {}

    /** The files that tell the past of a repository, and what is made of them. */
    record PastFiles(List<SharedFile<HistoryReader>> files, Past past) {}

    View(
            long number,
            List<SharedFile<SegmentReader>> segmentFiles,
            List<BranchFiles> branchFiles,
            Map<String, PastFiles> pastFiles) {
        this(number, segmentFiles, branchFiles, pastFiles, Optional.empty(), Set.of());
    }

    private View(
            long number,
            List<SharedFile<SegmentReader>> segmentFiles,
            List<BranchFiles> branchFiles,
            Map<String, PastFiles> pastFiles,
            Optional<View> whole,
            Set<String> hidden) {
        this.hidden = hidden;
        this.number = number;
        this.pastFiles = pastFiles;
        this.segmentFiles = segmentFiles;
        this.branchFiles = branchFiles;
        this.whole = whole;
        this.lastChanges = whole.map(view -> view.lastChanges)
                .orElseGet(() -> Collections.synchronizedMap(new IdentityHashMap<>()));
        this.mailmaps = whole.map(view -> view.mailmaps).orElseGet(ConcurrentHashMap::new);
        this.branches = branchFiles.stream().map(BranchFiles::branch).toList();
        this.segments = segmentFiles.stream().map(SharedFile::reader).toList();
        Map<SegmentReader, Integer> numbers = new IdentityHashMap<>();
        segments.forEach(segment -> numbers.put(segment, numbers.size()));
        this.segmentNumbers = branchFiles.stream()
                .map(files -> files.segments.stream()
                        .mapToInt(segment -> numbers.getOrDefault(segment, NOWHERE))
                        .toArray())
                .toList();
        placeBlobs();
    }

    /**
     * This view without the repositories that somebody may not see: as if the index never had them. It is open as long as
     * this one is, and {@link #acquire} and {@link #release} of it are those of this one.
     *
     * @param key equal for all who see the same; what is seen is asked once for each
     * @param sees by the name of a repository
     */
    public View seenBy(Object key, Predicate<String> sees) {
        if (whole.isPresent()) {
            throw new IllegalStateException("a part of a view has no parts");
        }
        return parts.computeIfAbsent(key, _ -> {
            Set<String> unseen = branches.stream()
                    .map(Branch::repository)
                    .filter(sees.negate())
                    .collect(Collectors.toUnmodifiableSet());
            return unseen.isEmpty() ? this : part(unseen);
        });
    }

    /** The repositories that this view has left out. */
    public Set<String> hidden() {
        return hidden;
    }

    private View part(Set<String> unseen) {
        List<BranchFiles> shown = branchFiles.stream()
                .filter(files -> !unseen.contains(files.branch.repository()))
                .toList();
        Set<SegmentReader> used = Collections.newSetFromMap(new IdentityHashMap<>());
        for (BranchFiles files : shown) {
            for (int segment : files.segment) {
                if (segment != NOWHERE) {
                    used.add(files.segments.get(segment));
                }
            }
        }
        Map<String, PastFiles> pasts = new HashMap<>(pastFiles);
        pasts.keySet().removeAll(unseen);
        return new View(
                number,
                segmentFiles.stream()
                        .filter(file -> used.contains(file.reader()))
                        .toList(),
                shown,
                Map.copyOf(pasts),
                Optional.of(this),
                unseen);
    }

    /** Whether some repositories are hidden, so that what is known of whole segments must not be told. */
    public boolean isPart() {
        return whole.isPresent();
    }

    private void placeBlobs() {
        int[][] starts = segments.stream()
                .map(segment -> new int[segment.blobCount() + 1])
                .toArray(int[][]::new);
        for (int branchNumber = 0; branchNumber < branchFiles.size(); branchNumber++) {
            forEachText(branchNumber, all(branchNumber), (_, segment, blob) -> starts[segment][blob + 1]++);
        }
        long[][] found = new long[starts.length][];
        int[][] next = new int[starts.length][];
        for (int segment = 0; segment < starts.length; segment++) {
            Arrays.parallelPrefix(starts[segment], Integer::sum);
            next[segment] = starts[segment].clone();
            found[segment] = new long[starts[segment][starts[segment].length - 1]];
            places.put(segments.get(segment), new Places(starts[segment], found[segment]));
        }
        for (int branchNumber = 0; branchNumber < branchFiles.size(); branchNumber++) {
            long high = (long) branchNumber << 32;
            forEachText(
                    branchNumber,
                    all(branchNumber),
                    (file, segment, blob) -> found[segment][next[segment][blob]++] = high | file);
        }
    }

    private SnapshotReader.Range all(int branchNumber) {
        return new SnapshotReader.Range(0, branchFiles.get(branchNumber).segment.length);
    }

    /** Ascends from view to view. */
    public long number() {
        return number;
    }

    public List<SegmentReader> segments() {
        return segments;
    }

    /** One entry for each branch number: ordered by repository, then by name. */
    public List<Branch> branches() {
        return branches;
    }

    public Branch branch(int branchNumber) {
        return branchFiles.get(branchNumber).branch;
    }

    public SnapshotReader snapshot(int branchNumber) {
        return branchFiles.get(branchNumber).snapshot.reader();
    }

    /** The past of a repository. */
    public Past past(String repository) {
        PastFiles files = pastFiles.get(repository);
        return files == null ? Past.NONE : files.past;
    }

    /** The commit that last changed each file of a branch; worked out when it is first asked for. */
    public LastChanges lastChanges(int branchNumber) {
        BranchFiles files = branchFiles.get(branchNumber);
        LastChanges known = lastChanges.get(files);
        if (known == null) { // two threads may work it out at once; it is the same
            known = LastChanges.of(past(files.branch.repository()), files.branch, files.snapshot.reader());
            lastChanges.put(files, known);
        }
        return known;
    }

    /** The mailmap of a repository: the file {@code .mailmap} of its default branch. */
    public Mailmap mailmap(String repository) {
        return mailmaps.computeIfAbsent(
                repository,
                name -> branchNumber(name, "")
                        .flatMap(branchNumber -> {
                            OptionalInt file = snapshot(branchNumber).find(".mailmap");
                            return file.isEmpty()
                                    ? Optional.<Location>empty()
                                    : location(branchNumber, file.getAsInt());
                        })
                        .map(found -> Mailmap.of(Utf8.string(
                                found.segment.content(),
                                found.segment.start(found.blob),
                                found.segment.end(found.blob))))
                        .orElse(Mailmap.NONE));
    }

    Map<String, PastFiles> pastFiles() {
        return pastFiles;
    }

    /** The number of a branch, or of a repository's default branch if the name is empty. */
    public Optional<Integer> branchNumber(String repository, String branch) {
        for (int branchNumber = 0; branchNumber < branchFiles.size(); branchNumber++) {
            Branch candidate = branch(branchNumber);
            if (candidate.repository().equals(repository)
                    && (branch.isEmpty()
                            ? candidate.isDefault()
                            : candidate.name().equals(branch))) {
                return Optional.of(branchNumber);
            }
        }
        return Optional.empty();
    }

    public Optional<Location> location(int branchNumber, int file) {
        BranchFiles files = branchFiles.get(branchNumber);
        return files.segment[file] == NOWHERE
                ? Optional.empty()
                : Optional.of(new Location(files.segments.get(files.segment[file]), files.blob[file]));
    }

    /** The segment, an index into {@link #segments}, that has the text of a file; -1 for a skipped file. */
    public int segmentNumber(int branchNumber, int file) {
        int number = branchFiles.get(branchNumber).segment[file];
        return number == NOWHERE ? NOWHERE : segmentNumbers.get(branchNumber)[number];
    }

    /** The number in its segment of a file's blob; only of files that have one. */
    public int blob(int branchNumber, int file) {
        return branchFiles.get(branchNumber).blob[file];
    }

    /** Receives each file that has a text. */
    @FunctionalInterface
    public interface TextConsumer {
        void text(int file, int segment, int blob);
    }

    /**
     * Tells all files of a branch in a range that have a text, in order, with the segment, an index into {@link
     * #segments}, and the blob.
     */
    public void forEachText(int branchNumber, SnapshotReader.Range range, TextConsumer consumer) {
        int[] segment = branchFiles.get(branchNumber).segment;
        int[] blob = branchFiles.get(branchNumber).blob;
        int[] numbers = segmentNumbers.get(branchNumber);
        for (int file = range.from(); file < range.to(); file++) {
            if (segment[file] != NOWHERE) {
                consumer.text(file, numbers[segment[file]], blob[file]);
            }
        }
    }

    /** Receives each file of a blob. */
    @FunctionalInterface
    public interface PlaceConsumer {
        void place(int branchNumber, int file);
    }

    public void forEachPlace(SegmentReader segment, int blob, PlaceConsumer consumer) {
        Places all = places.get(segment);
        for (int i = all.starts[blob]; i < all.starts[blob + 1]; i++) {
            consumer.place((int) (all.places[i] >>> 32), (int) all.places[i]);
        }
    }

    /** Number of files that a blob stands for. */
    public int placeCount(SegmentReader segment, int blob) {
        Places all = places.get(segment);
        return all.starts[blob + 1] - all.starts[blob];
    }

    /** Whether any branch holds a blob of a segment. */
    public boolean isUsed(SegmentReader segment) {
        return places.get(segment).places.length > 0;
    }

    List<SharedFile<SegmentReader>> segmentFiles() {
        return segmentFiles;
    }

    List<BranchFiles> branchFiles() {
        return branchFiles;
    }

    /** Keeps the files of this view open until {@link #release}. @return false if they are closed already */
    public boolean acquire() {
        return whole.isPresent() ? whole.get().acquire() : users.getAndUpdate(count -> count == 0 ? 0 : count + 1) > 0;
    }

    /** Lets go; the last one to do so closes the files that no other view uses. */
    public void release() {
        if (whole.isPresent()) {
            whole.get().release();
        } else if (users.decrementAndGet() == 0) {
            List<SharedFile<?>> files = new ArrayList<>(segmentFiles);
            branchFiles.forEach(branch -> files.add(branch.snapshot));
            pastFiles.values().forEach(past -> files.addAll(past.files));
            files.forEach(SharedFile::release);
        }
    }
}
