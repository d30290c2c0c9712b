package dev.oddbeacon.core.exclusion;

import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.source.Traits;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * What an exclusion set does to the files of a scope, pattern by pattern. Every file counts for the last pattern that
 * decides it.
 *
 * @param files of the scope
 * @param left of them, once the set has been applied
 */
public record ExclusionEffect(int files, int left, List<OfPattern> patterns) {
    private static final int SAMPLES = 10;
    private static final int ROUNDS = 4;
    private static final int NOT_OWN_SOURCE =
            Traits.FOREIGN | Traits.mask(Set.of(Trait.BINARY, Trait.TRANSLATION, Trait.DOCUMENTATION));
    private static final int UNDECIDED = -1;

    /**
     * What one pattern does.
     *
     * @param files that it takes out, or brings back
     * @param folders that it matches as a whole
     * @param filesInFolders how many of its files lie in them; the others are matched one by one
     * @param sampleFolders the folders with the most files
     * @param sampleFiles files that are matched one by one, those that are the team's own source first
     * @param warning what people should know
     */
    public record OfPattern(
            int line,
            String text,
            boolean bringsBack,
            int files,
            int folders,
            int filesInFolders,
            List<Sample> sampleFolders,
            List<Sample> sampleFiles,
            Optional<String> warning) {}

    /** A folder with its files, or a file, whose count is 1. */
    public record Sample(int branchNumber, String path, int files) {}

    /** @param limits of the scope without the set */
    public static ExclusionEffect of(View view, Limits limits, ExclusionSet set) {
        Counter counter = new Counter(view, limits, set);
        counter.count();
        return new ExclusionEffect(counter.files, counter.left, counter.patterns());
    }

    private record FolderOf(int branchNumber, String path) {}

    private static final class Tally {
        private int files;
        private int inFolders;
        private int ownSource; // of the files that are matched one by one
        private final Map<FolderOf, Integer> folders = new LinkedHashMap<>();
        private final List<Sample> own = new ArrayList<>();
        private final List<Sample> others = new ArrayList<>();
    }

    private static final class Counter {
        private final View view;
        private final Limits limits;
        private final ExclusionSet set;
        private final Tally[] tallies;
        private final int[][] charged; // by branch number and file: the pattern that decided it
        private final String[][] paths; // by branch number and file
        private int files;
        private int left;

        Counter(View view, Limits limits, ExclusionSet set) {
            this.view = view;
            this.limits = limits;
            this.set = set;
            this.tallies = IntStream.range(0, set.patterns().size())
                    .mapToObj(_ -> new Tally())
                    .toArray(Tally[]::new);
            this.charged = new int[view.branches().size()][];
            this.paths = new String[charged.length][];
        }

        void count() {
            Limits.Files scope = limits.files();
            for (int branchNumber = 0; branchNumber < charged.length; branchNumber++) {
                if (!limits.holdsBranch(branchNumber)) {
                    continue;
                }
                int of = branchNumber;
                SnapshotReader snapshot = view.snapshot(branchNumber);
                int[] byFile = charged[branchNumber] = new int[snapshot.count()];
                String[] pathByFile = paths[branchNumber] = new String[snapshot.count()];
                set.walk(snapshot, (file, path, charge) -> {
                    pathByFile[file] = path;
                    byFile[file] = charge.pattern();
                    if (!scope.hold(of, file, path)) {
                        return;
                    }
                    files++;
                    left += charge.isOut() ? 0 : 1;
                    if (charge.pattern() != UNDECIDED) {
                        add(
                                tallies[charge.pattern()],
                                of,
                                path,
                                charge.folder(),
                                (snapshot.traits(file) & NOT_OWN_SOURCE) == 0
                                        && !snapshot.type(file).equals("text"));
                    }
                });
            }
        }

        private static void add(Tally tally, int branchNumber, String path, String folder, boolean ownSource) {
            tally.files++;
            if (!folder.isEmpty()) {
                tally.inFolders++;
                tally.folders.merge(new FolderOf(branchNumber, folder), 1, Integer::sum);
                return;
            }
            tally.ownSource += ownSource ? 1 : 0;
            List<Sample> samples = ownSource ? tally.own : tally.others;
            if (samples.size() < SAMPLES) {
                samples.add(new Sample(branchNumber, path, 1));
            }
        }

        List<OfPattern> patterns() {
            Map<Integer, String> idle = idle();
            List<OfPattern> result = new ArrayList<>();
            for (int i = 0; i < tallies.length; i++) {
                Tally tally = tallies[i];
                ExclusionPattern pattern = set.patterns().get(i);
                List<Sample> folders = tally.folders.entrySet().stream()
                        .sorted((a, b) -> b.getValue() - a.getValue())
                        .limit(SAMPLES)
                        .map(entry -> new Sample(entry.getKey().branchNumber, entry.getKey().path, entry.getValue()))
                        .toList();
                List<Sample> single = new ArrayList<>(tally.own);
                single.addAll(tally.others);
                Optional<String> warning =
                        tally.files == 0 ? Optional.ofNullable(idle.get(i)) : alsoFiles(pattern, tally);
                result.add(new OfPattern(
                        pattern.line(),
                        pattern.text(),
                        pattern.bringsBack(),
                        tally.files,
                        tally.folders.size(),
                        tally.inFolders,
                        folders,
                        List.copyOf(single.subList(0, Math.min(SAMPLES, single.size()))),
                        warning));
            }
            return result;
        }

        /** Meant for folders, but files whose names fit go as well, unnoticed. */
        private static Optional<String> alsoFiles(ExclusionPattern pattern, Tally tally) {
            if (pattern.bringsBack() || tally.folders.isEmpty() || tally.ownSource == 0) {
                return Optional.empty();
            }
            String sample = tally.own.getFirst().path();
            return Optional.of("Besides " + count(tally.folders.size(), "folder") + ", it takes out "
                    + count(tally.ownSource, "single source file") + " elsewhere, such as " + sample
                    + ". If only folders are meant, end it with a slash: " + pattern.text() + "/");
        }

        private static String count(int number, String what) {
            return number + " " + what + (number == 1 ? "" : "s");
        }

        /** Patterns that decide nothing, and why. */
        private Map<Integer, String> idle() {
            Map<Integer, String> reasons = new LinkedHashMap<>();
            List<Integer> open = new ArrayList<>(IntStream.range(0, tallies.length)
                    .filter(i -> tallies[i].files == 0)
                    .boxed()
                    .toList());
            for (int round = 0; round < ROUNDS && !open.isEmpty(); round++) {
                int[] shadowedBy = shadows(set.only(open));
                List<Integer> still = new ArrayList<>();
                for (int i = 0; i < shadowedBy.length; i++) {
                    int index = open.get(i);
                    if (shadowedBy[i] == UNDECIDED) {
                        still.add(index);
                    } else {
                        ExclusionPattern other = set.patterns().get(shadowedBy[i]);
                        reasons.put(
                                index,
                                "It decides nothing: what it matches is decided by line " + other.line() + ", "
                                        + other.text() + ".");
                    }
                }
                if (still.size() == open.size()) {
                    break;
                }
                open = still;
            }
            open.forEach(index -> reasons.put(
                    index,
                    set.patterns().get(index).bringsBack()
                            ? "It matches nothing that was taken out in this scope."
                            : "It matches nothing in this scope."));
            return reasons;
        }

        /** For each pattern of a part of the set, a walk that decides what it matches. */
        private int[] shadows(ExclusionSet part) {
            int[] shadowedBy = new int[part.patterns().size()];
            Arrays.fill(shadowedBy, UNDECIDED);
            Limits.Files scope = limits.files();
            for (int branchNumber = 0; branchNumber < charged.length; branchNumber++) {
                if (charged[branchNumber] != null) {
                    int of = branchNumber;
                    ExclusionWalk walk = part.walk((file, path, charge) -> {
                        if (charge.pattern() != UNDECIDED
                                && shadowedBy[charge.pattern()] == UNDECIDED
                                && charged[of][file] != UNDECIDED
                                && scope.hold(of, file, path)) {
                            shadowedBy[charge.pattern()] = charged[of][file];
                        }
                    });
                    for (int file = 0; file < paths[branchNumber].length; file++) {
                        walk.visit(file, paths[branchNumber][file]);
                    }
                }
            }
            return shadowedBy;
        }
    }
}
