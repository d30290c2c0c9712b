package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.CompiledQuery.Node;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query.LimitKind;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * What a query's limits say about branches and paths of a view. A branch is left out when the query cannot hold for
 * any of its files, whatever they contain. Immutable.
 */
public final class Limits {
    /** What is known of a node before the text is looked at. */
    private enum Truth {
        YES, NO, OPEN
    }

    private final View view;
    private final Node root;
    private final boolean[] ranks;
    private final boolean asksForPaths;

    private Limits(View view, CompiledQuery query) {
        this.view = view;
        this.root = query.root();
        this.asksForPaths = asksForPaths(root);
        this.ranks = new boolean[view.branches().size()];
        for (int rank = 0; rank < ranks.length; rank++) {
            Branch branch = view.branch(rank);
            ranks[rank] = (query.branches() || branch.isDefault()) && truth(root, branch, "") != Truth.NO;
        }
    }

    /** @throws InvalidQueryException if a branch is named that no repository has */
    public static Limits of(View view, CompiledQuery query) {
        List<Node.Limit> branches = new ArrayList<>();
        collectBranches(query.root(), branches);
        for (Node.Limit limit : branches) {
            if (view.branches().stream().noneMatch(branch -> limit.glob().matches(branch.name()))) {
                throw new InvalidQueryException("No repository has an indexed branch or tag " + limit.glob()
                        + ". The page of repositories lists the indexed ones; add others there.");
            }
        }
        return new Limits(view, query);
    }

    private static void collectBranches(Node node, List<Node.Limit> into) {
        switch (node) {
            case Node.And and -> and.parts().forEach(part -> collectBranches(part, into));
            case Node.Or or -> or.parts().forEach(part -> collectBranches(part, into));
            case Node.Limit limit when limit.kind() == LimitKind.BRANCH -> into.add(limit);
            default -> { }
        }
    }

    private static boolean asksForPaths(Node node) {
        return switch (node) {
            case Node.And and -> and.parts().stream().anyMatch(Limits::asksForPaths);
            case Node.Or or -> or.parts().stream().anyMatch(Limits::asksForPaths);
            case Node.Limit limit -> limit.kind() == LimitKind.UNDER;
            case Node.Clause _, Node.Everything _ -> false;
        };
    }

    /** Whether a repository is in the scope, whatever its branches. */
    public static boolean holdRepository(CompiledQuery query, String name, Set<String> labels) {
        return truth(query.root(), new Branch(name, labels, "", "", Instant.EPOCH, true), "") != Truth.NO;
    }

    /** Whether files of a branch may be found. */
    public boolean holdsBranch(int rank) {
        return ranks[rank];
    }

    /** Where in the order of their paths the files of a branch stand that may be found; those in between need not be among them. */
    SnapshotReader.Range files(int rank) {
        return ranks[rank] ? files(root, view.snapshot(rank)) : SnapshotReader.Range.NONE;
    }

    private static SnapshotReader.Range files(Node node, SnapshotReader snapshot) {
        SnapshotReader.Range all = new SnapshotReader.Range(0, snapshot.count());
        return switch (node) {
            case Node.And and -> and.parts().stream().map(part -> files(part, snapshot)).reduce(all, SnapshotReader.Range::intersection);
            case Node.Or or -> or.parts().stream().map(part -> files(part, snapshot)).reduce(SnapshotReader.Range.NONE, SnapshotReader.Range::hull);
            case Node.Limit limit when limit.kind() == LimitKind.UNDER && limit.wanted() -> snapshot.startingWith(limit.glob().start());
            case Node.Limit _, Node.Clause _, Node.Everything _ -> all;
        };
    }

    /** Whether a file of a branch may be found, by its path. */
    boolean holdsPath(int rank, String path) {
        return !asksForPaths || truth(root, view.branch(rank), path) != Truth.NO;
    }

    /** Whether {@link #holdsPath} depends on the path. */
    boolean asksForPaths() {
        return asksForPaths;
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

    /**
     * @param branch without a name if only its repository is known
     * @param path empty if it is not known
     */
    private static Truth truth(Node node, Branch branch, String path) {
        return switch (node) {
            case Node.And and -> {
                Truth all = Truth.YES;
                for (Node part : and.parts()) {
                    Truth truth = truth(part, branch, path);
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
                    Truth truth = truth(part, branch, path);
                    if (truth == Truth.YES) {
                        yield Truth.YES;
                    }
                    any = truth == Truth.OPEN ? Truth.OPEN : any;
                }
                yield any;
            }
            case Node.Limit limit when limit.kind() == LimitKind.UNDER && path.isEmpty() -> Truth.OPEN;
            case Node.Limit limit when limit.kind() == LimitKind.BRANCH && branch.name().isEmpty() -> Truth.OPEN;
            case Node.Limit limit -> holds(limit, branch, path) ? Truth.YES : Truth.NO;
            case Node.Everything everything -> everything.wanted() ? Truth.YES : Truth.NO;
            case Node.Clause _ -> Truth.OPEN;
        };
    }

    /** Whether a limit holds, or does not hold if that is wanted. */
    static boolean holds(Node.Limit limit, Branch branch, String path) {
        boolean holds = switch (limit.kind()) {
            case REPO -> limit.glob().matches(branch.repository());
            case LABEL -> branch.labels().stream().anyMatch(limit.glob()::matches);
            case BRANCH -> limit.glob().matches(branch.name());
            case UNDER -> limit.glob().matches(path);
        };
        return holds == limit.wanted();
    }
}
