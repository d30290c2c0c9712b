package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.LineDiff;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.history.diff.TextLines;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;

/**
 * Where each line of a file comes from. From the version at hand back, the newest commit first: what a commit shares
 * with its parent is the parent's matter, the rest is its own. The index knows which commits touched the file and which
 * lines they changed, so commits in between cost nothing, and only merges need a look at trees and contents.
 */
public final class Blame {
    private static final int LARGEST_CACHE = 64;

    private final Past past;
    private final PastObjects objects;
    private final TextLines.Sameness sameness;
    private final Set<ObjectId> ignored;
    private final StoredHunks stored = new StoredHunks();
    private final Map<String, BitSet> touching = new HashMap<>();
    private final Map<ObjectId, TextLines> texts = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<ObjectId, TextLines> eldest) {
            return size() > LARGEST_CACHE;
        }
    };

    /**
     * @param ignored commits that only moved or formatted things: what they changed is looked for before them
     */
    public Blame(Past past, PastObjects objects, TextLines.Sameness sameness, Set<ObjectId> ignored) {
        this.past = past;
        this.objects = objects;
        this.sameness = sameness;
        this.ignored = ignored;
    }

    /**
     * Lines that follow each other and come from the same place.
     *
     * @param fromLine from 1
     * @param commit the number of the commit that made them what they are, or the last one that is known
     * @param path of the file there
     * @param line of the first of them there, from 1
     * @param before the path of the file in the parent of that commit; empty if it was not there
     */
    public record Origin(int fromLine, int toLine, int commit, String path, int line, Optional<String> before) {}

    /** Lines of the file at hand, and where they stand in a version of it. */
    private record Range(int here, int there, int lines) {}

    private record Place(int commit, String path) {}

    /** @return ascending; all lines are in one of them */
    public List<Origin> of(int commit, String path) throws IOException {
        CommitGraph graph = past.graph();
        TextLines file = text(commit, path).orElse(TextLines.NONE);
        Origin[] origins = new Origin[file.count()];
        Map<Place, List<Range>> open = new HashMap<>();
        PriorityQueue<Place> queue =
                new PriorityQueue<>(Comparator.comparingLong((Place place) -> -graph.committedSeconds(place.commit))
                        .thenComparingInt(Place::commit));
        pass(new Place(commit, path), List.of(new Range(0, 0, file.count())), open, queue);
        while (!queue.isEmpty()) {
            Place place = queue.remove();
            List<Range> ranges = open.remove(place);
            if (ranges == null || ranges.isEmpty()) {
                continue;
            }
            if (graph.parentCount(place.commit) > 1) {
                merge(place, ranges, open, queue, origins);
            } else if (!touches(place)
                    && graph.parentCount(place.commit) == 1
                    && graph.parent(place.commit, 0) != CommitGraph.UNKNOWN) {
                pass(new Place(graph.parent(place.commit, 0), place.path), ranges, open, queue);
            } else {
                single(place, ranges, open, queue, origins);
            }
        }
        return joined(origins);
    }

    private static void pass(
            Place place, List<Range> ranges, Map<Place, List<Range>> open, PriorityQueue<Place> queue) {
        if (ranges.isEmpty()) {
            return;
        }
        List<Range> known = open.get(place);
        if (known == null) {
            open.put(place, new ArrayList<>(ranges));
            queue.add(place);
        } else {
            known.addAll(ranges);
        }
    }

    private boolean touches(Place place) {
        return touching.computeIfAbsent(place.path, path -> {
                    BitSet all = new BitSet();
                    all.set(0, past.graph().count());
                    return past.touching(all, path::equals);
                })
                .get(place.commit);
    }

    private Optional<TextLines> text(int commit, String path) throws IOException {
        Optional<ObjectId> blob = objects.at(past.graph().id(commit), path);
        if (blob.isEmpty()) {
            return Optional.empty();
        }
        TextLines known = texts.get(blob.get());
        if (known == null) {
            known = new TextLines(objects.blob(blob.get()));
            texts.put(blob.get(), known);
        }
        return Optional.of(known);
    }

    private void single(
            Place place, List<Range> ranges, Map<Place, List<Range>> open, PriorityQueue<Place> queue, Origin[] origins)
            throws IOException {
        CommitGraph graph = past.graph();
        int parent = graph.parentCount(place.commit) == 0 ? CommitGraph.UNKNOWN : graph.parent(place.commit, 0);
        Optional<String> from = parent == CommitGraph.UNKNOWN ? Optional.empty() : before(place);
        Optional<List<LineDiff.Hunk>> hunks = from.isPresent() ? hunks(place, parent, from.get()) : Optional.empty();
        List<Range> own = ranges;
        if (hunks.isPresent()) {
            List<Range> shared = new ArrayList<>();
            own = new ArrayList<>();
            split(ranges, hunks.get(), shared, own);
            if (ignored.contains(graph.id(place.commit))) {
                own = throughIgnored(own, hunks.get(), shared);
            }
            pass(new Place(parent, from.get()), shared, open, queue);
        }
        blame(place, own, from.filter(_ -> hunks.isPresent()), origins);
    }

    /** The differences from the only parent of a commit; empty if it lacks the file. */
    private Optional<List<LineDiff.Hunk>> hunks(Place place, int parent, String from) throws IOException {
        CommitGraph graph = past.graph();
        Optional<List<LineDiff.Hunk>> known = sameness == TextLines.Sameness.EXACT
                ? stored.of(graph.file(place.commit), graph.row(place.commit), place.path)
                : Optional.empty();
        if (known.isPresent()) {
            return known;
        }
        Optional<TextLines> before = text(parent, from);
        return before.isPresent()
                ? Optional.of(LineDiff.hunks(
                        before.get(), text(place.commit, place.path).orElse(TextLines.NONE), sameness))
                : Optional.empty();
    }

    /** The path of the file in the parent. */
    private Optional<String> before(Place place) {
        HistoryReader file = past.graph().file(place.commit);
        HistoryReader.Changes changes = file.changes().of(past.graph().row(place.commit));
        while (changes.next()) {
            if (file.paths()[changes.path()].equals(place.path)) {
                return changes.kind() == PathChange.Kind.ADDED
                        ? Optional.empty()
                        : Optional.of(file.paths()[changes.from()]);
            }
        }
        return Optional.of(place.path);
    }

    private void merge(
            Place place, List<Range> ranges, Map<Place, List<Range>> open, PriorityQueue<Place> queue, Origin[] origins)
            throws IOException {
        CommitGraph graph = past.graph();
        Optional<ObjectId> own = objects.at(graph.id(place.commit), place.path);
        List<Integer> parents = new ArrayList<>();
        for (int i = 0; i < graph.parentCount(place.commit); i++) {
            int parent = graph.parent(place.commit, i);
            Optional<ObjectId> there =
                    parent == CommitGraph.UNKNOWN ? Optional.empty() : objects.at(graph.id(parent), place.path);
            if (there.isPresent() && there.equals(own)) {
                pass(new Place(parent, place.path), ranges, open, queue);
                return;
            }
            if (there.isPresent()) {
                parents.add(parent);
            }
        }
        List<Range> left = ranges;
        TextLines text = text(place.commit, place.path).orElse(TextLines.NONE);
        for (int parent : parents) {
            List<Range> shared = new ArrayList<>();
            List<Range> rest = new ArrayList<>();
            split(left, LineDiff.hunks(text(parent, place.path).orElse(TextLines.NONE), text, sameness), shared, rest);
            pass(new Place(parent, place.path), shared, open, queue);
            left = rest;
        }
        blame(place, left, parents.isEmpty() ? Optional.empty() : Optional.of(place.path), origins);
    }

    /** Divides ranges of a version into what its parent has as well, moved to where it stands there, and the rest. */
    private static void split(List<Range> ranges, List<LineDiff.Hunk> hunks, List<Range> shared, List<Range> own) {
        for (Range range : ranges) {
            int at = range.there;
            int end = range.there + range.lines;
            int shift = 0; // from the new lines to the old ones
            for (LineDiff.Hunk hunk : hunks) {
                if (hunk.newStart() >= end) {
                    break;
                }
                int hunkEnd = hunk.newStart() + hunk.newLines();
                if (at < hunk.newStart()) {
                    int lines = Math.min(end, hunk.newStart()) - at;
                    shared.add(new Range(range.here + at - range.there, at + shift, lines));
                    at += lines;
                }
                if (at < Math.min(end, hunkEnd)) {
                    int lines = Math.min(end, hunkEnd) - at;
                    own.add(new Range(range.here + at - range.there, at, lines));
                    at += lines;
                }
                shift += hunk.oldLines() - hunk.newLines();
            }
            if (at < end) {
                shared.add(new Range(range.here + at - range.there, at + shift, end - at));
            }
        }
    }

    /** Lines of an ignored commit go to those that they replaced, one by one. @return those that replaced nothing */
    private static List<Range> throughIgnored(List<Range> own, List<LineDiff.Hunk> hunks, List<Range> shared) {
        List<Range> rest = new ArrayList<>();
        for (Range range : own) {
            for (int i = 0; i < range.lines; i++) {
                int line = range.there + i;
                Optional<LineDiff.Hunk> hunk = hunks.stream()
                        .filter(one -> line >= one.newStart() && line < one.newStart() + one.newLines())
                        .findFirst();
                if (hunk.isPresent() && hunk.get().oldLines() > 0) {
                    int old = hunk.get().oldStart()
                            + Math.min(line - hunk.get().newStart(), hunk.get().oldLines() - 1);
                    shared.add(new Range(range.here + i, old, 1));
                } else {
                    rest.add(new Range(range.here + i, line, 1));
                }
            }
        }
        return rest;
    }

    private static void blame(Place place, List<Range> ranges, Optional<String> before, Origin[] origins) {
        for (Range range : ranges) {
            for (int i = 0; i < range.lines; i++) {
                origins[range.here + i] = new Origin(
                        range.here + i + 1, range.here + i + 1, place.commit, place.path, range.there + i + 1, before);
            }
        }
    }

    private static List<Origin> joined(Origin[] origins) {
        List<Origin> joined = new ArrayList<>();
        for (Origin origin : Arrays.asList(origins)) {
            Origin last = joined.isEmpty() ? null : joined.getLast();
            if (last != null
                    && last.commit == origin.commit
                    && last.path.equals(origin.path)
                    && last.line + origin.fromLine - last.fromLine == origin.line) {
                joined.set(
                        joined.size() - 1,
                        new Origin(last.fromLine, origin.toLine, last.commit, last.path, last.line, last.before));
            } else {
                joined.add(origin);
            }
        }
        return joined;
    }
}
