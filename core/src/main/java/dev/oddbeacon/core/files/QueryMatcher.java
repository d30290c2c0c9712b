package dev.oddbeacon.core.files;

import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery.Node;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.search.Excerpt.Span;
import java.lang.foreign.MemorySegment;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/** A query of text clauses and limits, asked of the path in place of the lines. */
final class QueryMatcher implements PathMatcher {
    private final CompiledQuery query;
    private final Limits.Files limits;
    private final List<TextMatcher.Finder> finders;
    private final List<Integer> wanted = new ArrayList<>();
    private final boolean[] nameHits; // by clause: whether it matches in the name
    private byte[] array = {};
    private MemorySegment memory = MemorySegment.ofArray(array);

    /** @param limits which stand at the file whose path is asked about */
    QueryMatcher(CompiledQuery query, Limits.Files limits) {
        this.query = query;
        this.limits = limits;
        this.finders = query.clauses().stream()
                .map(clause -> clause.finder(() -> false))
                .toList();
        this.nameHits = new boolean[finders.size()];
        collect(query.root());
    }

    private void collect(Node node) {
        switch (node) {
            case Node.And and -> and.parts().forEach(this::collect);
            case Node.Or or -> or.parts().forEach(this::collect);
            case Node.Clause clause when clause.wanted() -> wanted.add(clause.number());
            case Node.Clause _, Node.Condition _, Node.Holds _, Node.Found _, Node.Everything _ -> {}
        }
    }

    @Override
    public int points(Path path) {
        Arrays.fill(nameHits, false);
        if (!holds(query.root(), path)) {
            return NO_MATCH;
        }
        boolean inName = false;
        for (boolean hit : nameHits) {
            inName |= hit;
        }
        return (inName ? 20 : 0) - path.length / 8;
    }

    private boolean begin(int clause, Path path) {
        if (path.bytes != array) {
            array = path.bytes;
            memory = MemorySegment.ofArray(array);
        }
        TextMatcher.Finder finder = finders.get(clause);
        long end = (long) path.start + path.length;
        finder.begin(memory, path.start, end, path.start, end);
        return finder.next();
    }

    private boolean matches(int clause, Path path) {
        boolean found = begin(clause, path);
        nameHits[clause] = found && finders.get(clause).start() >= path.start + path.name;
        return found;
    }

    private boolean holds(Node node, Path path) {
        return switch (node) {
            case Node.And and -> {
                for (Node part : and.parts()) {
                    if (!holds(part, path)) {
                        yield false;
                    }
                }
                yield true;
            }
            case Node.Or or -> {
                for (Node part : or.parts()) {
                    if (holds(part, path)) {
                        yield true;
                    }
                }
                yield false;
            }
            case Node.Clause clause -> matches(clause.number(), path) == clause.wanted();
            case Node.Condition condition -> limits.holds(condition);
            case Node.Found found -> limits.holds(found);
            case Node.Holds holds -> throw new IllegalStateException("not settled: " + holds);
            case Node.Everything everything -> everything.wanted();
        };
    }

    @Override
    public List<Span> spans(Path path) {
        List<Span> spans = new ArrayList<>();
        for (int clause : wanted) {
            TextMatcher.Finder finder = finders.get(clause);
            for (boolean found = begin(clause, path); found; found = finder.next()) {
                if (finder.end() > finder.start()) {
                    spans.add(new Span((int) finder.start() - path.start, (int) finder.end() - path.start));
                }
            }
        }
        spans.sort(Comparator.comparingInt(Span::start));
        return spans;
    }
}
