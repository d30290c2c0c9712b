package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.CompiledQuery.Node;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query.LimitKind;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Trait;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * What a query's limits say about the branches and files of a view, whatever the files contain. A branch is left out
 * when the query cannot hold for any of its files. Threads may share one.
 */
public final class Limits {
    /** What is known of a node before the text is looked at. */
    private enum Truth {
        YES, NO, OPEN
    }

    /** Which files of a branch the exclusion set of a name takes out. */
    @FunctionalInterface
    public interface Exclusions {
        Exclusions NONE = (_, _) -> new BitSet();

        /** @return by number of the file; never changed */
        BitSet excluded(String set, SnapshotReader snapshot);
    }

    private static final Map<String, Integer> MASKS = new HashMap<>(); // by label of the trait

    static {
        for (Trait trait : Trait.values()) {
            MASKS.put(trait.label(), 1 << trait.ordinal());
        }
    }

    private final View view;
    private final Node root;
    private final Exclusions exclusions;
    private final boolean[] ranks;
    private final boolean asksForFiles;

    private Limits(View view, CompiledQuery query, Exclusions exclusions) {
        this.view = view;
        this.root = query.root();
        this.exclusions = exclusions;
        List<Node.Limit> limits = new ArrayList<>();
        collect(root, limits);
        this.asksForFiles = limits.stream().anyMatch(limit -> isOfFiles(limit.kind())) || lists(root);
        this.ranks = new boolean[view.branches().size()];
        for (int rank = 0; rank < ranks.length; rank++) {
            Branch branch = view.branch(rank);
            ranks[rank] = (query.branches() || branch.isDefault()) && truth(root, limit -> truth(limit, branch), listed -> truth(listed, branch.repository()), _ -> Truth.OPEN) != Truth.NO;
        }
    }

    private static boolean lists(Node node) {
        return switch (node) {
            case Node.And and -> and.parts().stream().anyMatch(Limits::lists);
            case Node.Or or -> or.parts().stream().anyMatch(Limits::lists);
            case Node.Listed _, Node.Found _, Node.Changed _ -> true;
            case Node.Limit _, Node.Clause _, Node.Holds _, Node.Everything _ -> false;
        };
    }

    /** @throws InvalidQueryException if a branch is named that no repository has */
    public static Limits of(View view, CompiledQuery query, Exclusions exclusions) {
        List<Node.Limit> limits = new ArrayList<>();
        collect(query.root(), limits);
        for (Node.Limit limit : limits) {
            if (limit.kind() == LimitKind.BRANCH && view.branches().stream().noneMatch(branch -> limit.glob().matches(branch.name()))) {
                throw new InvalidQueryException("No repository has an indexed branch or tag " + limit.glob()
                        + ". The page of repositories lists the indexed ones; add others there.");
            }
        }
        return new Limits(view, query, exclusions);
    }

    private static void collect(Node node, List<Node.Limit> into) {
        switch (node) {
            case Node.And and -> and.parts().forEach(part -> collect(part, into));
            case Node.Or or -> or.parts().forEach(part -> collect(part, into));
            case Node.Limit limit -> into.add(limit);
            case Node.Clause _, Node.Listed _, Node.Holds _, Node.Found _, Node.Changed _, Node.Everything _ -> { }
        }
    }

    private static boolean isOfFiles(LimitKind kind) {
        return switch (kind) {
            case REPO, LABEL, BRANCH -> false;
            case UNDER, TYPE, TRAIT, EXCEPT -> true;
        };
    }

    /** Whether a repository is in the scope, whatever its branches. */
    public static boolean holdRepository(CompiledQuery query, String name, Set<String> labels) {
        Branch branch = new Branch(name, labels, "", "", Instant.EPOCH, true);
        return truth(query.root(), limit -> truth(limit, branch), listed -> truth(listed, name), _ -> Truth.OPEN) != Truth.NO;
    }

    /** Whether files of a branch may be found. */
    public boolean holdsBranch(int rank) {
        return ranks[rank];
    }

    /** Where in the order of their paths the files of a branch stand that may be found; those in between need not be among them. */
    SnapshotReader.Range files(int rank) {
        return ranks[rank] ? files(root, view.branch(rank).repository(), view.snapshot(rank)) : SnapshotReader.Range.NONE;
    }

    private static SnapshotReader.Range files(Node node, String repository, SnapshotReader snapshot) {
        SnapshotReader.Range all = new SnapshotReader.Range(0, snapshot.count());
        return switch (node) {
            case Node.And and -> and.parts().stream().map(part -> files(part, repository, snapshot)).reduce(all, SnapshotReader.Range::intersection);
            case Node.Or or -> or.parts().stream().map(part -> files(part, repository, snapshot)).reduce(SnapshotReader.Range.NONE, SnapshotReader.Range::hull);
            case Node.Limit limit when limit.kind() == LimitKind.UNDER && limit.wanted() -> snapshot.startingWith(limit.glob().start());
            case Node.Listed listed when listed.wanted() -> {
                BitSet files = numbers(listed, repository, snapshot);
                yield files.isEmpty() ? SnapshotReader.Range.NONE : new SnapshotReader.Range(files.nextSetBit(0), files.length());
            }
            case Node.Limit _, Node.Listed _, Node.Clause _, Node.Holds _, Node.Found _, Node.Changed _, Node.Everything _ -> all;
        };
    }

    /** The numbers of the listed files that a branch has. */
    private static BitSet numbers(Node.Listed listed, String repository, SnapshotReader snapshot) {
        BitSet numbers = new BitSet();
        String start = repository + "/";
        for (String file : listed.files()) {
            if (file.startsWith(start)) {
                snapshot.find(file.substring(start.length())).ifPresent(numbers::set);
            }
        }
        return numbers;
    }

    /** How many of the files that a query lists no branch of a view has. */
    public static int missing(View view, Query query) {
        Set<String> missing = new HashSet<>();
        collectListed(query, missing);
        for (int rank = 0; rank < view.branches().size() && !missing.isEmpty(); rank++) {
            String start = view.branch(rank).repository() + "/";
            SnapshotReader snapshot = view.snapshot(rank);
            missing.removeIf(file -> file.startsWith(start) && snapshot.find(file.substring(start.length())).isPresent());
        }
        return missing.size();
    }

    private static void collectListed(Query query, Set<String> into) {
        if (query instanceof Query.Listed listed) {
            into.addAll(listed.files());
        }
        query.children().forEach(child -> collectListed(child, into));
    }

    /** How many repositories are in the scope. */
    public int repositories() {
        int count = 0;
        String before = "";
        for (int rank = 0; rank < ranks.length; rank++) {
            String repository = view.branch(rank).repository();
            if (ranks[rank] && !repository.equals(before)) {
                count++;
                before = repository;
            }
        }
        return count;
    }

    /** What the limits say of one file after another. For one thread. */
    public Files files() {
        return new Files();
    }

    /** @see Limits#files() */
    public final class Files {
        private final Map<Node, BitSet> ofBranch = new IdentityHashMap<>(); // what a limit holds for: types by number, or excluded files
        private final Function<Node.Limit, Truth> ofLimit = limit -> holds(limit) ? Truth.YES : Truth.NO;
        private final Function<Node.Listed, Truth> ofListed = listed -> holds(listed) ? Truth.YES : Truth.NO;
        private final Function<Node, Truth> ofFile = leaf -> (leaf instanceof Node.Found found ? holds(found) : holds((Node.Changed) leaf)) ? Truth.YES : Truth.NO;
        private int rank = -1;
        private int file;
        private Branch branch;
        private SnapshotReader snapshot;
        private String path;

        private Files() {}

        /** Goes to a file. @return whether it may be found */
        public boolean hold(int newRank, int newFile) {
            return hold(newRank, newFile, null);
        }

        /** Goes to a file of which the path is known. @return whether it may be found */
        public boolean hold(int newRank, int newFile, String knownPath) {
            if (newRank != rank) {
                rank = newRank;
                branch = view.branch(rank);
                snapshot = view.snapshot(rank);
                ofBranch.clear();
            }
            file = newFile;
            path = knownPath;
            return ranks[rank] && (!asksForFiles || truth(root, ofLimit, ofListed, ofFile) != Truth.NO);
        }

        /** Whether a limit holds for the file, or does not hold if that is wanted. */
        public boolean holds(Node.Limit limit) {
            boolean holds = switch (limit.kind()) {
                case REPO, LABEL, BRANCH -> ofBranch(limit, branch);
                case UNDER -> limit.glob().matches(path());
                case TYPE -> ofBranch.computeIfAbsent(limit, _ -> types(limit)).get(snapshot.typeNumber(file));
                case TRAIT -> (snapshot.traits(file) & MASKS.get(limit.glob().toString())) != 0;
                case EXCEPT -> !ofBranch.computeIfAbsent(limit, _ -> exclusions.excluded(limit.glob().toString(), snapshot)).get(file);
            };
            return holds == limit.wanted();
        }

        /** Whether the file is listed, or is not if that is wanted. */
        public boolean holds(Node.Listed listed) {
            return ofBranch.computeIfAbsent(listed, _ -> numbers(listed, branch.repository(), snapshot)).get(file) == listed.wanted();
        }

        /** Whether the file is among those that were found, or is not if that is wanted. */
        public boolean holds(Node.Found found) {
            return found.files().get(rank).get(file) == found.wanted();
        }

        /** Whether the file was changed last when it is asked for, or was not if that is wanted. */
        public boolean holds(Node.Changed changed) {
            boolean isAfter = view.lastChanges(rank).seconds(file) >= changed.seconds();
            return (isAfter == changed.after()) == changed.wanted();
        }

        private String path() {
            if (path == null) {
                path = snapshot.path(file);
            }
            return path;
        }

        private BitSet types(Node.Limit limit) {
            BitSet types = new BitSet();
            for (int number = 0; number < snapshot.types().size(); number++) {
                types.set(number, limit.glob().matches(snapshot.types().get(number)));
            }
            return types;
        }
    }

    private static boolean ofBranch(Node.Limit limit, Branch branch) {
        return switch (limit.kind()) {
            case REPO -> limit.glob().matches(branch.repository());
            case LABEL -> branch.labels().stream().anyMatch(limit.glob()::matches);
            case BRANCH -> limit.glob().matches(branch.name());
            case UNDER, TYPE, TRAIT, EXCEPT -> throw new IllegalArgumentException("of files: " + limit);
        };
    }

    /** What is known of a limit for all files of a branch, whose name is empty if only its repository is known. */
    private static Truth truth(Node.Limit limit, Branch branch) {
        boolean isOpen = isOfFiles(limit.kind()) || limit.kind() == LimitKind.BRANCH && branch.name().isEmpty();
        return isOpen ? Truth.OPEN : ofBranch(limit, branch) == limit.wanted() ? Truth.YES : Truth.NO;
    }

    /** What is known of a list for all files of a repository. */
    private static Truth truth(Node.Listed listed, String repository) {
        String start = repository + "/";
        return listed.files().stream().anyMatch(file -> file.startsWith(start)) ? Truth.OPEN : listed.wanted() ? Truth.NO : Truth.YES;
    }

    private static Truth truth(Node node, Function<Node.Limit, Truth> ofLimit, Function<Node.Listed, Truth> ofListed, Function<Node, Truth> ofFile) {
        return switch (node) {
            case Node.And and -> {
                Truth all = Truth.YES;
                for (Node part : and.parts()) {
                    Truth truth = truth(part, ofLimit, ofListed, ofFile);
                    if (truth == Truth.NO) {
                        yield Truth.NO;
                    }
                    all = truth == Truth.OPEN ? Truth.OPEN : all;
                }
                yield all;
            }
            case Node.Or or -> {
                Truth any = Truth.NO;
                for (Node part : or.parts()) {
                    Truth truth = truth(part, ofLimit, ofListed, ofFile);
                    if (truth == Truth.YES) {
                        yield Truth.YES;
                    }
                    any = truth == Truth.OPEN ? Truth.OPEN : any;
                }
                yield any;
            }
            case Node.Limit limit -> ofLimit.apply(limit);
            case Node.Listed listed -> ofListed.apply(listed);
            case Node.Everything everything -> everything.wanted() ? Truth.YES : Truth.NO;
            case Node.Found _, Node.Changed _ -> ofFile.apply(node);
            case Node.Clause _, Node.Holds _ -> Truth.OPEN;
        };
    }
}
