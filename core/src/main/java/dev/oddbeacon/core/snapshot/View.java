package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.language.Language;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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

    private static final int NOWHERE = BranchFiles.NOWHERE;
    /** Parts of a view that are kept for callers who may see the same repositories. */
    private static final int MOST_PARTS = 32;

    private final long number;
    private final List<SharedFile<SegmentReader>> segmentFiles;
    private final Pasts pasts;
    private final List<BranchFiles> branchFiles;
    private final List<Branch> branches;
    private final List<SegmentReader> segments;
    private final Map<SegmentReader, Integer> segmentNumbers = new IdentityHashMap<>();
    private final Map<SegmentReader, SegmentPlaces> places;
    private final Set<SegmentReader> used; // by some branch
    private final int[] branchOfSlot; // -1 for slots that no branch of this view has
    // of all branches side by side: most searches ask this of each
    private final int[] fileCounts;
    private final int[][] numbersOfBranch; // null before they are asked for
    private final BitSet defaults = new BitSet();
    private final Optional<View> whole; // of which this is a part
    private final Optional<View> divided; // to divide work by
    private final Set<String> hidden;
    private final Map<Object, View> parts = Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Object, View> eldest) {
            return size() > MOST_PARTS;
        }
    });
    private final AtomicInteger users = new AtomicInteger(1);

    View(
            long number,
            List<SharedFile<SegmentReader>> segmentFiles,
            List<BranchFiles> branchFiles,
            Pasts pasts,
            Map<SegmentReader, SegmentPlaces> places,
            int slots) {
        this(number, segmentFiles, branchFiles, pasts, places, slots, Optional.empty(), Optional.empty(), Set.of());
    }

    private View(
            long number,
            List<SharedFile<SegmentReader>> segmentFiles,
            List<BranchFiles> branchFiles,
            Pasts pasts,
            Map<SegmentReader, SegmentPlaces> places,
            int slots,
            Optional<View> whole,
            Optional<View> divided,
            Set<String> hidden) {
        this.divided = divided;
        this.hidden = hidden;
        this.number = number;
        this.pasts = pasts;
        this.segmentFiles = segmentFiles;
        this.branchFiles = branchFiles;
        this.places = places;
        this.whole = whole;
        this.branches =
                new AbstractList<>() { // without a list of its own: many views are kept
                    @Override
                    public Branch get(int branchNumber) {
                        return branchFiles.get(branchNumber).branch();
                    }

                    @Override
                    public int size() {
                        return branchFiles.size();
                    }
                };
        this.segments = segmentFiles.stream().map(SharedFile::reader).toList();
        segments.forEach(segment -> segmentNumbers.put(segment, segmentNumbers.size()));
        this.used = users(branchFiles);
        this.branchOfSlot = new int[slots];
        Arrays.fill(branchOfSlot, NOWHERE);
        this.fileCounts = new int[branchFiles.size()];
        this.numbersOfBranch = new int[branchFiles.size()][];
        for (int branchNumber = 0; branchNumber < branchFiles.size(); branchNumber++) {
            BranchFiles files = branchFiles.get(branchNumber);
            branchOfSlot[files.slot()] = branchNumber;
            fileCounts[branchNumber] = files.snapshot().count();
            defaults.set(branchNumber, files.branch().isDefault());
        }
    }

    private static Set<SegmentReader> users(List<BranchFiles> branches) {
        Set<SegmentReader> used = Collections.newSetFromMap(new IdentityHashMap<>());
        branches.forEach(files -> used.addAll(files.segments()));
        return used;
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
            return unseen.isEmpty() ? this : part(unseen, Optional.empty());
        });
    }

    /**
     * Some of the repositories of this view, to divide work by; made anew each time. Open as long as this one is.
     *
     * @param isIn by the name of a repository
     */
    public View of(Predicate<String> isIn) {
        Set<String> others = branches.stream()
                .map(Branch::repository)
                .filter(isIn.negate())
                .collect(Collectors.toCollection(HashSet::new));
        others.addAll(hidden);
        return part(others, Optional.of(this));
    }

    /**
     * Stands for all text of this view, in this process and others, and how it is analysed: where it is the same, every
     * search finds the same. The segments that the text lies in do not matter.
     */
    public long fingerprint() {
        return branchFiles.stream()
                .mapToLong(BranchFiles::fingerprint)
                .reduce(Analyser.VERSION, (sum, one) -> sum * 31 + one);
    }

    /** Stands for all commits of this view besides: where it is the same, so is all that is known of the past. */
    public long fingerprintWithPasts() {
        long sum = fingerprint();
        for (Branch branch : branches) {
            sum = sum * 31 + branch.commit().hashCode();
            sum = sum * 31 + pasts.fingerprint(branch.repository());
        }
        return sum;
    }

    /** Number of files of a branch. */
    public int fileCount(int branchNumber) {
        return fileCounts[branchNumber];
    }

    /** Whether a branch is searched where none is named. */
    public boolean isDefault(int branchNumber) {
        return defaults.get(branchNumber);
    }

    /** The repositories that this view has left out. */
    public Set<String> hidden() {
        return hidden;
    }

    private View part(Set<String> unseen, Optional<View> ofDivided) {
        List<BranchFiles> shown = branchFiles.stream()
                .filter(files -> !unseen.contains(files.branch().repository()))
                .toList();
        Set<SegmentReader> shownIn = users(shown);
        return new View(
                number,
                segmentFiles.stream()
                        .filter(file -> shownIn.contains(file.reader()))
                        .toList(),
                shown,
                pasts,
                places,
                branchOfSlot.length,
                Optional.of(this),
                ofDivided,
                unseen);
    }

    /** Whether some repositories are hidden, so that what is known of whole segments must not be told. */
    public boolean isPart() {
        return whole.isPresent();
    }

    /** Ascends from view to view. */
    public long number() {
        return number;
    }

    public List<SegmentReader> segments() {
        return segments;
    }

    /** Those of a group of repositories. */
    public List<SegmentReader> segmentsOf(String group) {
        return segments.stream()
                .filter(segment -> segment.about().group().equals(group))
                .toList();
    }

    /** One entry for each branch number: ordered by repository, then by name. */
    public List<Branch> branches() {
        return branches;
    }

    public Branch branch(int branchNumber) {
        return branchFiles.get(branchNumber).branch();
    }

    public SnapshotReader snapshot(int branchNumber) {
        return branchFiles.get(branchNumber).snapshot();
    }

    /** The past of a repository. */
    public Past past(String repository) {
        return hidden.contains(repository) ? Past.NONE : pasts.of(repository);
    }

    /** The commit that last changed each file of a branch; worked out when it is first asked for. */
    public LastChanges lastChanges(int branchNumber) {
        return branchFiles
                .get(branchNumber)
                .lastChanges(past(branch(branchNumber).repository()));
    }

    /** The mailmap of a repository: the file {@code .mailmap} of its default branch. */
    public Mailmap mailmap(String repository) {
        return branchNumber(repository, "")
                .map(branchNumber -> branchFiles.get(branchNumber).mailmap())
                .orElse(Mailmap.NONE);
    }

    Pasts pasts() {
        return pasts;
    }

    /** Whether some repository has a branch of such a name; of a part to divide work by, whether one of the whole has. */
    public boolean hasBranch(Predicate<String> name) {
        return divided.orElse(this).branches.stream().map(Branch::name).anyMatch(name);
    }

    /** The number of a branch, or of a repository's default branch if the name is empty. */
    public Optional<Integer> branchNumber(String repository, String branch) {
        for (int number = firstBranchOf(repository);
                number < branches.size() && branches.get(number).repository().equals(repository);
                number++) {
            Branch candidate = branch(number);
            if (branch.isEmpty() ? candidate.isDefault() : candidate.name().equals(branch)) {
                return Optional.of(number);
            }
        }
        return Optional.empty();
    }

    private int firstBranchOf(String repository) {
        int low = 0;
        int high = branches.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (branches.get(middle).repository().compareTo(repository) < 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    public Optional<Location> location(int branchNumber, int file) {
        BranchFiles files = branchFiles.get(branchNumber);
        return files.segment(file) == NOWHERE
                ? Optional.empty()
                : Optional.of(new Location(files.segments().get(files.segment(file)), files.blob(file)));
    }

    /** The segment, an index into {@link #segments}, that has the text of a file; -1 for a skipped file. */
    public int segmentNumber(int branchNumber, int file) {
        BranchFiles files = branchFiles.get(branchNumber);
        int segment = files.segment(file);
        return segment == NOWHERE ? NOWHERE : segmentNumbers(branchNumber)[segment];
    }

    /** The numbers of a branch's segments in {@link #segments}. */
    private int[] segmentNumbers(int branchNumber) {
        int[] numbers = numbersOfBranch[branchNumber];
        if (numbers == null) { // two threads may work it out at once; it is the same
            numbers = branchFiles.get(branchNumber).segments().stream()
                    .mapToInt(segmentNumbers::get)
                    .toArray();
            numbersOfBranch[branchNumber] = numbers;
        }
        return numbers;
    }

    /** The number in its segment of a file's blob; only of files that have one. */
    public int blob(int branchNumber, int file) {
        return branchFiles.get(branchNumber).blob(file);
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
        if (range.from() >= range.to()) {
            return;
        }
        BranchFiles files = branchFiles.get(branchNumber);
        int[] numbers = segmentNumbers(branchNumber);
        for (int file = range.from(); file < range.to(); file++) {
            int segment = files.segment(file);
            if (segment != NOWHERE) {
                consumer.text(file, numbers[segment], files.blob(file));
            }
        }
    }

    /** Receives each file of a blob. */
    @FunctionalInterface
    public interface PlaceConsumer {
        void place(int branchNumber, int file);
    }

    /** Tells the files of a blob, in no order. */
    public void forEachPlace(SegmentReader segment, int blob, PlaceConsumer consumer) {
        places.get(segment).forEach(blob, branchOfSlot, consumer);
    }

    /** Number of files that a blob stands for. */
    public int placeCount(SegmentReader segment, int blob) {
        int[] count = {0};
        forEachPlace(segment, blob, (_, _) -> count[0]++);
        return count[0];
    }

    /** Branches of which some would be told otherwise now: their types and traits. */
    public List<Branch> outdated() {
        return branchFiles.stream()
                .filter(files -> files.snapshot().about().isOutdated())
                .map(BranchFiles::branch)
                .toList();
    }

    /** In which language a blob is analysed, as the type of one of its files says, if it has any. */
    public Optional<Language> language(SegmentReader segment, int blob, Signs signs) {
        List<String> types = new ArrayList<>(1);
        forEachPlace(segment, blob, (branchNumber, file) -> {
            if (types.isEmpty()) {
                SnapshotReader snapshot = snapshot(branchNumber);
                types.add(
                        snapshot.about().isOutdated()
                                ? FileTypes.of(
                                        snapshot.path(file),
                                        signs,
                                        true,
                                        path -> snapshot.find(path).isPresent())
                                : snapshot.type(file));
            }
        });
        return types.isEmpty() ? segment.language(blob) : Language.ofType(types.getFirst());
    }

    /** Whether any branch holds a blob of a segment. */
    public boolean isUsed(SegmentReader segment) {
        return used.contains(segment);
    }

    /** How many slots were given; that of a branch which is gone is not given again, as places may still have it. */
    int slots() {
        return branchOfSlot.length;
    }

    Map<SegmentReader, SegmentPlaces> places() {
        return places;
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
            branchFiles.forEach(branch -> files.add(branch.shared()));
            pasts.forEachFile(files::add);
            files.forEach(SharedFile::release);
        }
    }
}
