package dev.oddbeacon.core.scope;

import dev.oddbeacon.core.query.BranchFacts;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.FileFacts;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Truth;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery.Node;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.LastChanges;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import java.time.Instant;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * What the conditions of a query say about the branches and files of a view, whatever the files contain. A branch is
 * left out when the query cannot hold for any of its files. Threads may share one.
 */
public final class Limits {
    private final View view;
    private final Node root;
    private final Exclusions exclusions;
    private final Instant now;
    private final Truth[] branches; // what is known of all files of each, if their text is what is asked for
    private final boolean narrows; // whether some files of a branch can be told by their place in it
    private final SnapshotReader.Range[]
            ranges; // of branches, once they were asked for; threads may work one out twice

    /**
     * @param now the moment from which days are counted back
     * @throws InvalidQueryException if a branch is named that no repository has
     */
    public Limits(View view, CompiledQuery query, Exclusions exclusions, Instant now) {
        this.view = view;
        this.root = query.root();
        this.exclusions = exclusions;
        this.now = now;
        checkBranches(root);
        this.branches = new Truth[view.branches().size()];
        this.narrows = any(root, Limits::isOfPlaces);
        this.ranges = new SnapshotReader.Range[narrows ? branches.length : 0];
        boolean differs = any(root, Limits::isOfBranches);
        Truth ofAll = truth(root, Truth.YES, _ -> Truth.OPEN);
        for (int number = 0; number < branches.length; number++) {
            branches[number] = !query.branches() && !view.isDefault(number)
                    ? Truth.NO
                    : differs ? truth(root, facts(view.branch(number))) : ofAll;
        }
    }

    private static Truth truth(Node root, BranchFacts facts) {
        return truth(root, Truth.YES, condition -> condition.of(facts));
    }

    /** Whether some condition is of a kind. */
    private static boolean any(Node node, Predicate<FileCondition> kind) {
        return switch (node) {
            case Node.And and -> and.parts().stream().anyMatch(part -> any(part, kind));
            case Node.Or or -> or.parts().stream().anyMatch(part -> any(part, kind));
            case Node.Condition condition -> kind.test(condition.condition());
            case Node.Clause _, Node.Holds _, Node.Found _, Node.Everything _ -> false;
        };
    }

    /** Whether a condition can be true of one branch and false of another, whatever their files. */
    private static boolean isOfBranches(FileCondition condition) {
        return switch (condition) {
            case FileCondition.Repository _, FileCondition.Label _, FileCondition.OnBranch _, FileCondition.Listed _ ->
                true;
            case FileCondition.Under _,
                    FileCondition.Type _,
                    FileCondition.HasTrait _,
                    FileCondition.Except _,
                    FileCondition.Changed _,
                    FileCondition.Size _ -> false;
        };
    }

    /** Whether a condition leaves a part of the list of paths. */
    private static boolean isOfPlaces(FileCondition condition) {
        return condition instanceof FileCondition.Under || condition instanceof FileCondition.Listed;
    }

    private void checkBranches(Node node) {
        switch (node) {
            case Node.And and -> and.parts().forEach(this::checkBranches);
            case Node.Or or -> or.parts().forEach(this::checkBranches);
            case Node.Condition(FileCondition.OnBranch wanted, boolean _) -> {
                if (!view.hasBranch(wanted.name()::matches)) {
                    throw new InvalidQueryException("No repository has an indexed branch or tag " + wanted.name()
                            + ". The page of repositories lists the indexed ones; add others there.");
                }
            }
            case Node.Condition _, Node.Clause _, Node.Holds _, Node.Found _, Node.Everything _ -> {}
        }
    }

    private static BranchFacts facts(Branch branch) {
        return new BranchFacts(branch.repository(), branch.labels(), Optional.of(branch.name()));
    }

    /** Whether some repositories may be in the scope and others not. */
    public static boolean dividesRepositories(CompiledQuery query) {
        return any(query.root(), Limits::isOfBranches);
    }

    /** Whether a repository is in the scope, whatever its branches. */
    public static boolean holdRepository(CompiledQuery query, String name, Collection<String> labels) {
        BranchFacts facts = new BranchFacts(name, labels, Optional.empty());
        return truth(query.root(), Truth.OPEN, condition -> condition.of(facts)) != Truth.NO;
    }

    /** Whether files of a branch may be found. */
    public boolean holdsBranch(int branch) {
        return branches[branch] != Truth.NO;
    }

    /**
     * Range of file numbers (files are sorted by path) that this scope can match; not every file in it needs to match.
     */
    public SnapshotReader.Range files(int branch) {
        if (!holdsBranch(branch)) {
            return SnapshotReader.Range.NONE;
        }
        if (!narrows) {
            return new SnapshotReader.Range(0, view.fileCount(branch));
        }
        if (ranges[branch] == null) {
            ranges[branch] = files(root, view.branch(branch).repository(), view.snapshot(branch));
        }
        return ranges[branch];
    }

    /** Whether a file lies in the range of its branch. */
    public boolean reaches(int branch, int file) {
        return narrows ? files(branch).holds(file) : holdsBranch(branch);
    }

    /** Number of files in the ranges of all branches. */
    public long fileCount() {
        long count = 0;
        for (int branch = 0; branch < branches.length; branch++) {
            if (holdsBranch(branch)) {
                count += narrows ? files(branch).to() - files(branch).from() : view.fileCount(branch);
            }
        }
        return count;
    }

    private static SnapshotReader.Range files(Node node, String repository, SnapshotReader snapshot) {
        SnapshotReader.Range all = new SnapshotReader.Range(0, snapshot.count());
        return switch (node) {
            case Node.And and ->
                and.parts().stream()
                        .map(part -> files(part, repository, snapshot))
                        .reduce(all, SnapshotReader.Range::intersection);
            case Node.Or or ->
                or.parts().stream()
                        .map(part -> files(part, repository, snapshot))
                        .reduce(SnapshotReader.Range.NONE, SnapshotReader.Range::hull);
            case Node.Condition(FileCondition.Under under, boolean wanted)
            when wanted -> snapshot.startingWith(under.path().start());
            case Node.Condition(FileCondition.Listed listed, boolean wanted)
            when wanted -> {
                BitSet files = numbers(listed, repository, snapshot);
                yield files.isEmpty()
                        ? SnapshotReader.Range.NONE
                        : new SnapshotReader.Range(files.nextSetBit(0), files.length());
            }
            case Node.Condition _, Node.Clause _, Node.Holds _, Node.Found _, Node.Everything _ -> all;
        };
    }

    /** The numbers of the listed files that a branch has. */
    private static BitSet numbers(FileCondition.Listed listed, String repository, SnapshotReader snapshot) {
        BitSet numbers = new BitSet();
        listed.pathsIn(repository).forEach(path -> snapshot.find(path).ifPresent(numbers::set));
        return numbers;
    }

    /** Number of files listed by a query that no branch of the view has. */
    public static int missing(View view, Query query) {
        Set<String> missing = new HashSet<>();
        query.conditions().forEach(condition -> {
            if (condition instanceof FileCondition.Listed listed) {
                missing.addAll(listed.files());
            }
        });
        for (int branch = 0; branch < view.branches().size() && !missing.isEmpty(); branch++) {
            String start = view.branch(branch).repository() + "/";
            SnapshotReader snapshot = view.snapshot(branch);
            missing.removeIf(file -> file.startsWith(start)
                    && snapshot.find(file.substring(start.length())).isPresent());
        }
        return missing.size();
    }

    /** Number of repositories in the scope. */
    public int repositories() {
        Set<String> repositories = new HashSet<>();
        for (int branch = 0; branch < branches.length; branch++) {
            if (holdsBranch(branch)) {
                repositories.add(view.branch(branch).repository());
            }
        }
        return repositories.size();
    }

    /** Evaluates the conditions for one file after another. For one thread. */
    public Files files() {
        return new Files();
    }

    /** @see Limits#files() */
    public final class Files implements FileFacts {
        // worked out once for each branch
        private final Map<FileCondition, BitSet> ofBranch = new IdentityHashMap<>();
        private final Map<String, BitSet> excluded = new HashMap<>();
        private BranchFacts facts;
        private SnapshotReader snapshot;
        private LastChanges lastChanges;

        private int branch = -1;
        private int file;
        private String path;

        private Files() {}

        /** Goes to a file. @return whether it may be found */
        public boolean hold(int newBranch, int newFile) {
            return hold(newBranch, newFile, null);
        }

        /** Goes to a file of which the path is known. @return whether it may be found */
        public boolean hold(int newBranch, int newFile, String knownPath) {
            if (newBranch != branch) {
                branch = newBranch;
                facts = facts(view.branch(branch));
                snapshot = view.snapshot(branch);
                lastChanges = null;
                ofBranch.clear();
                excluded.clear();
            }
            file = newFile;
            path = knownPath;
            return switch (branches[branch]) {
                case YES -> true;
                case NO -> false;
                case OPEN -> mayHold(root);
            };
        }

        /** Whether a part of the query holds for the file, as far as its text does not decide. */
        private boolean mayHold(Node node) {
            switch (node) {
                case Node.And and -> {
                    for (Node part : and.parts()) {
                        if (!mayHold(part)) {
                            return false;
                        }
                    }
                    return true;
                }
                case Node.Or or -> {
                    for (Node part : or.parts()) {
                        if (mayHold(part)) {
                            return true;
                        }
                    }
                    return false;
                }
                case Node.Condition condition -> {
                    return holds(condition);
                }
                case Node.Found found -> {
                    return holds(found);
                }
                case Node.Everything everything -> {
                    return everything.wanted();
                }
                case Node.Clause _, Node.Holds _ -> {
                    return true;
                }
            }
        }

        /** Whether a condition holds for the file, or does not hold if that is wanted. */
        public boolean holds(Node.Condition node) {
            return node.condition().holds(this) == node.wanted();
        }

        /** Whether the file is among those that were found, or is not if that is wanted. */
        public boolean holds(Node.Found found) {
            return found.files().get(branch).get(file) == found.wanted();
        }

        @Override
        public BranchFacts branch() {
            return facts;
        }

        @Override
        public String path() {
            if (path == null) {
                path = snapshot.path(file);
            }
            return path;
        }

        @Override
        public boolean isOfType(FileCondition.Type condition) {
            return ofBranch.computeIfAbsent(condition, _ -> types(condition)).get(snapshot.typeNumber(file));
        }

        private BitSet types(FileCondition.Type condition) {
            BitSet types = new BitSet();
            for (int number = 0; number < snapshot.types().size(); number++) {
                types.set(number, condition.type().matches(snapshot.types().get(number)));
            }
            return types;
        }

        @Override
        public int traits() {
            return snapshot.traits(file);
        }

        @Override
        public boolean isExcluded(String set) {
            return excluded.computeIfAbsent(set, name -> exclusions.excluded(name, snapshot))
                    .get(file);
        }

        @Override
        public boolean isListed(FileCondition.Listed list) {
            return ofBranch.computeIfAbsent(list, _ -> numbers(list, facts.repository(), snapshot))
                    .get(file);
        }

        @Override
        public OptionalLong bytes() {
            return OptionalLong.of(snapshot.bytes(file));
        }

        @Override
        public OptionalLong lastChange() {
            lastChanges = lastChanges == null ? view.lastChanges(branch) : lastChanges;
            return OptionalLong.of(lastChanges.seconds(file));
        }

        @Override
        public Instant now() {
            return now;
        }
    }

    /** The value of a query, as far as it is known. @param ofText what is assumed of clauses that ask for text */
    private static Truth truth(Node node, Truth ofText, Function<FileCondition, Truth> ofCondition) {
        return switch (node) {
            case Node.And and -> all(and.parts(), ofText, ofCondition);
            case Node.Or or -> any(or.parts(), ofText, ofCondition);
            case Node.Condition condition ->
                switch (ofCondition.apply(condition.condition())) {
                    case OPEN -> Truth.OPEN;
                    case YES -> Truth.of(condition.wanted());
                    case NO -> Truth.of(!condition.wanted());
                };
            case Node.Everything everything -> Truth.of(everything.wanted());
            case Node.Found _ -> Truth.OPEN;
            case Node.Clause _, Node.Holds _ -> ofText;
        };
    }

    private static Truth all(List<Node> parts, Truth ofText, Function<FileCondition, Truth> ofCondition) {
        Truth all = Truth.YES;
        for (Node part : parts) {
            Truth truth = truth(part, ofText, ofCondition);
            if (truth == Truth.NO) {
                return Truth.NO;
            }
            all = truth == Truth.OPEN ? Truth.OPEN : all;
        }
        return all;
    }

    private static Truth any(List<Node> parts, Truth ofText, Function<FileCondition, Truth> ofCondition) {
        Truth any = Truth.NO;
        for (Node part : parts) {
            Truth truth = truth(part, ofText, ofCondition);
            if (truth == Truth.YES) {
                return Truth.YES;
            }
            any = truth == Truth.OPEN ? Truth.OPEN : any;
        }
        return any;
    }
}
