package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;

/**
 * The commits that changed a file or a folder, the newest first. The index knows who touched a path, so only merges
 * need a look at trees: where one side of a merge had what came out of it, only that side is followed, as Git's own log
 * does.
 */
public final class PathLog {
    private final Past past;
    private final PastObjects objects;
    private final boolean follows;
    private final Map<String, BitSet> touching = new HashMap<>(); // by path

    /** @param follows whether a renamed file is followed to its path before; folders are not */
    public PathLog(Past past, PastObjects objects, boolean follows) {
        this.past = past;
        this.objects = objects;
        this.follows = follows;
    }

    /**
     * A commit that changed it.
     *
     * @param path of the file in this commit
     * @param from its path before, the same unless it was renamed
     * @param kind empty for a folder, and for a merge that changed it itself
     */
    public record Step(int commit, String path, String from, Optional<PathChange.Kind> kind, int added, int removed) {}

    private record PathAtCommit(int commit, String path) {}

    /**
     * @param start the commit to look back from
     * @param path from the root; empty for everything
     * @param most steps to tell
     */
    public List<Step> steps(int start, String path, int most) throws IOException {
        CommitGraph graph = past.graph();
        PriorityQueue<PathAtCommit> open = new PriorityQueue<>(
                Comparator.comparingLong((PathAtCommit place) -> -graph.committedSeconds(place.commit))
                        .thenComparingInt(PathAtCommit::commit));
        Set<PathAtCommit> seen = new HashSet<>();
        List<Step> steps = new ArrayList<>();
        push(new PathAtCommit(start, path), open, seen);
        while (!open.isEmpty() && steps.size() < most) {
            PathAtCommit place = open.remove();
            if (graph.parentCount(place.commit) > 1 && !path.isEmpty()) {
                merge(place, open, seen, steps);
                continue;
            }
            String before = place.path;
            boolean isGone = false;
            if (touches(place)) {
                Step step = step(place);
                steps.add(step);
                before = follows ? step.from : place.path;
                isGone = step.kind.isPresent() && step.kind.get() == PathChange.Kind.ADDED && follows;
            }
            for (int i = 0; i < graph.parentCount(place.commit) && !isGone; i++) {
                push(new PathAtCommit(graph.parent(place.commit, i), before), open, seen);
            }
        }
        return steps;
    }

    private static void push(PathAtCommit place, PriorityQueue<PathAtCommit> open, Set<PathAtCommit> seen) {
        if (place.commit != CommitGraph.UNKNOWN && seen.add(place)) {
            open.add(place);
        }
    }

    private void merge(PathAtCommit place, PriorityQueue<PathAtCommit> open, Set<PathAtCommit> seen, List<Step> steps)
            throws IOException {
        CommitGraph graph = past.graph();
        Optional<ObjectId> own = objects.at(graph.id(place.commit), place.path);
        List<Integer> others = new ArrayList<>();
        for (int i = 0; i < graph.parentCount(place.commit); i++) {
            int parent = graph.parent(place.commit, i);
            if (parent == CommitGraph.UNKNOWN) {
                continue;
            }
            if (objects.at(graph.id(parent), place.path).equals(own)) {
                push(new PathAtCommit(parent, place.path), open, seen);
                return;
            }
            others.add(parent);
        }
        steps.add(new Step(place.commit, place.path, place.path, Optional.empty(), 0, 0));
        others.forEach(parent -> push(new PathAtCommit(parent, place.path), open, seen));
    }

    private boolean touches(PathAtCommit place) {
        if (place.path.isEmpty()) {
            return true;
        }
        return touching.computeIfAbsent(place.path, path -> {
                    BitSet all = new BitSet();
                    all.set(0, past.graph().count());
                    String below = path + "/";
                    return past.touching(all, other -> other.equals(path) || other.startsWith(below));
                })
                .get(place.commit);
    }

    private Step step(PathAtCommit place) {
        HistoryReader file = past.graph().file(place.commit);
        HistoryReader.Changes changes = file.changes().of(past.graph().row(place.commit));
        int added = 0;
        int removed = 0;
        Optional<Step> step = Optional.empty();
        while (changes.next()) {
            String path = file.paths()[changes.path()];
            String from = file.paths()[changes.from()];
            if (path.equals(place.path)) {
                return new Step(
                        place.commit, path, from, Optional.of(changes.kind()), changes.added(), changes.removed());
            }
            if (from.equals(place.path)) { // it was moved away: for a path that is looked for where it is not any more
                step = Optional.of(
                        new Step(place.commit, place.path, place.path, Optional.of(PathChange.Kind.DELETED), 0, 0));
            }
            if (place.path.isEmpty() || path.startsWith(place.path + "/") || from.startsWith(place.path + "/")) {
                added += changes.added();
                removed += changes.removed();
            }
        }
        return step.orElse(new Step(place.commit, place.path, place.path, Optional.empty(), added, removed));
    }
}
